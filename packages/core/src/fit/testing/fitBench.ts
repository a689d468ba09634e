/** `npm run bench`: the search against HiGHS on the same requests in the same run, both warm. Only ratios mean anything. */
import { fit } from '../fit.js';
import type { FitPlan } from '../fitPlan.js';
import type { FitRequest } from '../fitRequest.js';
import { integerSolverOf } from '../integerSolver.js';
import { kitAdvice } from '../kitAdvice.js';
import { kitChance } from '../kitChance.js';
import { type KitQuestion, kitQuestionSchema } from '../kitQuestion.js';
import { seeded } from '../seeded.js';
import { highs, leastCostOf, programmeOf } from './milp.js';
import { gradedEngine, manyEngines } from './randomRequest.js';

const solver = integerSolverOf(await highs());

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** Runs a search. @returns its plan and how long it took, ms */
function timed(request: FitRequest): { plan: FitPlan; ms: number } {
  const before = performance.now();
  const plan = fit(request, { solver });
  return { plan, ms: performance.now() - before };
}

/** Runs HiGHS on the whole model; writing the model is not counted. */
async function timedHighs(request: FitRequest): Promise<{ least: number | null; ms: number } | null> {
  const programme = programmeOf(request);
  if (programme === null) return null;
  const before = performance.now();
  const least = await leastCostOf(programme);
  return { least, ms: performance.now() - before };
}

function checkAgainst(name: string, plan: FitPlan, least: number | null): void {
  if ((least === null) !== (plan.cost === null) || Math.abs((least ?? 0) - (plan.cost ?? 0)) > 1e-4) {
    throw new Error(`${name}: the search says ${plan.cost}, HiGHS says ${least}`);
  }
}

/** Both are run over all requests in a row, so that each is as warm as the other. */
async function oneEngine(name: string, requests: readonly FitRequest[], warmUps: number): Promise<void> {
  const solvable = requests.filter((request) => programmeOf(request) !== null);
  for (let round = 0; round < warmUps; round += 1) for (const request of solvable) fit(request, { explain: false });
  const ours = solvable.map((request) => median([timed(request), timed(request), timed(request)].map(({ ms }) => ms)));
  const ratios: number[] = [];
  for (const [at, request] of solvable.entries()) {
    const other = await timedHighs(request);
    checkAgainst(name, fit(request), other!.least);
    ratios.push(other!.ms / ours[at]!);
  }
  const slowest = Math.max(...ours).toFixed(1);
  console.log(
    `${name}: ${median(ratios).toFixed(0)} × as fast as HiGHS (median of ${ratios.length}; slowest search ${slowest} ms)`,
  );
}

async function oneDrawer(name: string, requests: readonly FitRequest[]): Promise<number> {
  const ratios: number[] = [];
  const times: number[] = [];
  for (const request of requests) {
    const { plan, ms } = timed(request);
    const other = await timedHighs(request);
    checkAgainst(name, plan, other!.least);
    if (plan.status !== 'optimal') throw new Error(`${name}: not proven`);
    ratios.push(other!.ms / ms);
    times.push(ms);
  }
  const stations = requests[0]!.stations.length;
  console.log(
    `${name} (${stations} stations): ${median(ratios).toFixed(1)} × as fast as HiGHS on the whole model, proven (median of ${ratios.length})`,
  );
  return median(times);
}

/** Without a reference: HiGHS would need minutes. */
function largeDrawer(name: string, request: FitRequest, [reference, than]: [number, string]): void {
  const { plan, ms } = timed(request);
  if (plan.cost === null) throw new Error(`${name}: nothing fits`);
  const gap =
    plan.status === 'optimal' ? 'proven' : `within ${((1 - plan.bound! / plan.cost) * 100).toFixed(3)} % of the bound`;
  const memory = (process.memoryUsage().rss / 1e6).toFixed(0);
  console.log(
    `${name} (${request.stations.length} stations): ${gap}, ${(ms / reference).toFixed(1)} × the time of ${than}; ${memory} MB in use`,
  );
}

const batch = (count: number, mains: number, rods: number, grades: number) =>
  Array.from({ length: count }, (_, at) => gradedEngine(at + 1, mains, rods, grades));

/** Advice on what to order, against searching as many drawn engines once each on a drawer with everything. */
function orderAdvice(name: string, question: KitQuestion): void {
  const plenty = { ...question, shells: question.shells.map((shell) => ({ ...shell, stock: null })) };
  const spent = (work: () => unknown) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  spent(() => kitChance({ ...plenty, engines: 500 }, seeded(1)));
  const once = spent(() => kitChance(plenty, seeded(1)));
  const advice = spent(() => kitAdvice(question, 0.95, seeded(1)));
  console.log(
    `${name}: a kit for ${question.engines} engines in ${(advice / once).toFixed(1)} × the time of searching each once`,
  );
}

await oneEngine('5 mains in 5 grades', batch(60, 5, 0, 5), 30);
await oneEngine('5 mains and 4 free rods in 5 grades', batch(60, 5, 4, 5), 30);
await oneEngine('7 mains and 8 free rods in 6 grades', batch(60, 7, 8, 6), 4);

const drawers = (engines: number, freeRods: boolean) =>
  [1, 2, 3].map((seed) => manyEngines(seed, engines, { freeRods }));
for (const freeRods of [false, true]) fit(manyEngines(7, 20, { freeRods }), { solver });
const fixed = await oneDrawer('200 engines on one drawer, fixed rods', drawers(200, false));
largeDrawer('2,000 engines on one drawer, fixed rods', manyEngines(4, 2_000), [fixed, '200']);
const free = await oneDrawer('100 engines on one drawer, free rods', drawers(100, true));
largeDrawer('1,000 engines on one drawer, free rods', manyEngines(4, 1_000, { freeRods: true }), [free, '100']);

orderAdvice(
  'what to order for 5 mains in 5 grades, alike within 6 µm',
  kitQuestionSchema.parse({
    format: 'fettle.kit-question/1',
    unit: 'mm',
    stations: [1, 2, 3, 4, 5].map((main) => ({
      id: `M${main}`,
      family: 'main',
      bore: { low: 64, high: 64.019 },
      journal: { low: 59.976, high: 59.994 },
      aim: 0.035,
      low: 0.02,
      high: 0.05,
    })),
    shells: [1.989, 1.992, 1.995, 1.998, 2.001].flatMap((wall) =>
      ['upper', 'lower'].map((half) => ({ id: `${half} ${wall}`, family: 'main', series: 'A', half, wall, stock: 0 })),
    ),
    rules: { mixedHalves: false, maxSpread: { main: 0.006, rod: null } },
  }),
);
