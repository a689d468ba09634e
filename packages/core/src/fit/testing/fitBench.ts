/** `npm run bench`: the search against HiGHS on the same requests in the same run, both warm. Only ratios mean anything. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { seeded } from '../../measure/seeded.js';
import { kitAdvice } from '../../order/kitAdvice.js';
import { kitChance } from '../../order/kitChance.js';
import { type KitQuestion, kitQuestionSchema } from '../../order/kitQuestion.js';
import { alternativesAt } from '../alternatives.js';
import type { FitPlan } from '../format/fitPlan.js';
import type { FitRequest } from '../format/fitRequest.js';
import { problemOfRequest } from '../format/problemOfRequest.js';
import { planRequest } from '../planRequest.js';
import { planVariants } from '../planVariants.js';
import { integerSolverOf } from '../search/integerSolver.js';
import { ENGINE_KINDS, engineOfKind } from './everyKind.js';
import { highs, leastCostOf, programmeOf } from './milp.js';
import { gradedEngine, manyEngines, manyKinds } from './randomRequest.js';

const solver = integerSolverOf(await highs());

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** Runs a search. @returns its plan and how long it took, ms */
function timed(request: FitRequest): { plan: FitPlan; ms: number } {
  const before = performance.now();
  const plan = planRequest(request, { solver });
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
  for (let round = 0; round < warmUps; round += 1)
    for (const request of solvable) planRequest(request, { explain: false });
  const ours = solvable.map((request) => median([timed(request), timed(request), timed(request)].map(({ ms }) => ms)));
  const ratios: number[] = [];
  for (const [at, request] of solvable.entries()) {
    const other = await timedHighs(request);
    checkAgainst(name, planRequest(request), other!.least);
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

function quantile(values: readonly number[], share: number): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

const threeOf = (values: readonly number[]) =>
  `${quantile(values, 0.5).toFixed(1)} / ${quantile(values, 0.99).toFixed(0)} / ${Math.max(...values).toFixed(0)}`;

/** Single engines of every kind, infeasible ones too: median, 99th percentile and worst, of the search, of its explanations, and of HiGHS. */
async function everyKind(aKind: number): Promise<void> {
  const requests = ENGINE_KINDS.flatMap((kind, at) =>
    Array.from({ length: aKind }, (_, seed) => engineOfKind(1000 * at + seed + 1, kind)),
  );
  for (let round = 0; round < 3; round += 1)
    for (const request of requests) planRequest(request, { solver, explain: false });
  const ours: number[] = [];
  const theirs: number[] = [];
  const ratios: number[] = [];
  const explaining: number[] = [];
  let late = 0;
  for (const request of requests) {
    const search = () => {
      const before = performance.now();
      const plan = planRequest(request, { solver, explain: false });
      return { plan, ms: performance.now() - before };
    };
    const runs = [search(), search(), search()];
    const ms = median(runs.map((run) => run.ms));
    const { plan } = runs[0]!;
    ours.push(ms);
    if (plan.status === 'infeasible') {
      const before = performance.now();
      planRequest(request, { solver, clock: () => performance.now(), until: before + 20_000 });
      explaining.push(performance.now() - before - ms);
    }
    const other = await timedHighs(request);
    if (other === null) continue;
    checkAgainst('every kind', plan, other.least);
    theirs.push(other.ms);
    ratios.push(other.ms / ms);
    if (ms > Math.max(300, 3 * other.ms)) late += 1;
  }
  console.log(
    `single engines of every kind (${requests.length}, ${explaining.length} infeasible), median / 99 % / worst, ms:`,
  );
  console.log(
    `  search ${threeOf(ours)}; HiGHS on the same model ${threeOf(theirs)}; explanation on top ${threeOf(explaining)}`,
  );
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  console.log(
    `  ${median(ratios).toFixed(0)} × as fast as HiGHS (median), ${mean(ratios).toFixed(0)} × (mean), all together ${(mean(theirs) / mean(ours)).toFixed(0)} ×, worst ${Math.min(...ratios).toFixed(1)} ×; slower than three times HiGHS or 300 ms: ${late}`,
  );
}

/** Four engines on one short shelf with a limited spread. */
async function fourEngines(): Promise<void> {
  const worst: number[] = [];
  for (const freeRods of [true, false]) {
    for (let seed = 1; seed <= 6; seed += 1) {
      const asked = manyEngines(seed, 4, { freeRods, slack: 1, maxSpread: { main: 0.012, rod: 0.012 } });
      const short = seed % 2 === 0;
      const shells = asked.shells.map((shell, at) =>
        short && at % 7 === 2 && shell.stock! > 0 ? { ...shell, stock: shell.stock! - 1 } : shell,
      );
      const request = { ...asked, shells };
      const before = performance.now();
      const plan = planRequest(request, { solver, explain: false });
      const ms = performance.now() - before;
      const other = await timedHighs(request);
      if (other === null) continue;
      checkAgainst('four engines', plan, other.least);
      worst.push(ms / other.ms);
    }
  }
  console.log(
    `four engines of nine stations, short shelf, limited spread: ${median(worst).toFixed(2)} × the time of HiGHS (median), worst ${Math.max(...worst).toFixed(2)} ×`,
  );
}

/** What grows: each with its search, its plans side by side and the ways at one station. */
function growth(): void {
  const clock = () => performance.now();
  const base = gradedEngine(3, 7, 8, 5);
  const thirty = gradedEngine(5, 10, 20, 5);
  const sixteen = gradedEngine(4, 7, 8, 16);
  const near = (wall: number) => 1.995 + (wall - 1.995) / 3;
  const requests: [string, FitRequest][] = [
    [
      '4,000 shells',
      {
        ...base,
        shells: Array.from({ length: 4_000 }, (_, at) => ({
          ...base.shells[0]!,
          id: `s${at}`,
          family: at % 4 < 2 ? ('main' as const) : ('rod' as const),
          half: at % 2 === 0 ? ('lower' as const) : ('upper' as const),
          wall: Number((1.985 + (Math.floor(at / 4) % 20) / 1000).toFixed(3)),
          stock: 1,
        })),
      },
    ],
    ['30 stations', { ...thirty, shells: thirty.shells.map((shell) => ({ ...shell, stock: shell.stock! * 2 })) }],
    ['16 walls a side', { ...sixteen, shells: sixteen.shells.map((shell) => ({ ...shell, wall: near(shell.wall) })) }],
  ];
  for (const [name, request] of requests) {
    const spent = (work: (limits: { solver: typeof solver; clock: () => number; until: number }) => unknown) => {
      const before = clock();
      work({ solver, clock, until: before + 20_000 });
      return `${((clock() - before) / 1000).toFixed(2)} s`;
    };
    const search = spent((limits) => planRequest(request, limits));
    const variants = spent((limits) => planVariants(problemOfRequest(request), limits));
    const ways = spent((limits) => alternativesAt(problemOfRequest(request), request.stations[0]!.id, limits));
    console.log(`${name}: search ${search}, four plans side by side ${variants}, ways at one station ${ways}`);
  }
}

/** A first search in a fresh process beside one in a warm one. */
function coldBesideWarm(): void {
  const program = `
    import { planRequest } from '${import.meta.resolve('../planRequest.js')}';
    import { readySearch } from '${import.meta.resolve('../readySearch.js')}';
    import { loadIntegerSolver } from '${import.meta.resolve('../search/loadIntegerSolver.js')}';
    import { manyEngines } from '${import.meta.resolve('./randomRequest.js')}';
    const clock = () => performance.now();
    const request = manyEngines(1, 100, { freeRods: true });
    const solver = process.argv.at(-1) === 'ready' ? await readySearch(clock) : await loadIntegerSolver();
    const once = () => { const before = clock(); planRequest(request, { solver }); return clock() - before; };
    console.log(JSON.stringify([once(), once(), once()]));
  `;
  const run = (how: string) =>
    JSON.parse(
      execFileSync(process.execPath, [...process.execArgv, '--input-type=module', '--eval', program, how], {
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'inherit'],
      }),
    ) as [number, number, number];
  const [cold, , warm] = run('fresh');
  const [ready] = run('ready');
  console.log(
    `100 engines with free rods: ${(cold / warm).toFixed(1)} × the warm time in a fresh process, ${(ready / warm).toFixed(1)} × once made ready (${warm.toFixed(0)} ms warm)`,
  );
}

/** The command line on a file of 100 engines, beside a process that reads the written model and hands it to HiGHS. */
function wholeCommand(): void {
  const folder = mkdtempSync(join(tmpdir(), 'fettle-bench-'));
  try {
    const request = manyEngines(1, 100, { freeRods: true });
    const [asked, written] = [join(folder, 'request.json'), join(folder, 'model.lp')];
    writeFileSync(asked, JSON.stringify(request));
    writeFileSync(written, programmeOf(request)!);
    const program = `
      import load from '${import.meta.resolve('highs')}';
      import { readFileSync } from 'node:fs';
      const solver = await load();
      const options = { mip_rel_gap: 0, mip_abs_gap: 1e-9, output_flag: false };
      console.log(solver.solve(readFileSync('${written}', 'utf8'), options).ObjectiveValue);
    `;
    const seconds = (args: readonly string[]) => {
      const before = performance.now();
      execFileSync(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
      return (performance.now() - before) / 1000;
    };
    const command = fileURLToPath(new URL('../../../../../scripts/fettle.mjs', import.meta.url));
    const ours = median([1, 2, 3].map(() => seconds([command, 'fit', asked])));
    const theirs = seconds(['--input-type=module', '--eval', program]);
    console.log(
      `100 engines with free rods as a whole command: ${(theirs / ours).toFixed(1)} × as fast as HiGHS on the written model (${ours.toFixed(1)} s)`,
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Ten thousand kinds of halves and five mains, beside two thousand: time and memory must not grow with the number of pairs. */
function longLists(): void {
  const kinds: [string, Parameters<typeof manyKinds>[1], Parameters<typeof manyKinds>[2]][] = [
    ['one price', {}, {}],
    ['prices', { pricePenalty: 2 }, {}],
    ['prices and two series a station', { pricePenalty: 2, acrossSeries: true }, {}],
    ['limited spread', { maxSpread: { main: 0.002, rod: null } }, {}],
    ['nothing fits', {}, { wallFrom: 2.4 }],
  ];
  for (const [name, rules, more] of kinds) {
    const spent = (count: number) => {
      const request = manyKinds(count, rules, more);
      return median([1, 2, 3].map(() => timed(request).ms));
    };
    const [few, many] = [spent(2_000), spent(10_000)];
    const megabytes = (process.memoryUsage.rss() / 1e6).toFixed(0);
    console.log(
      `10,000 kinds, five mains, ${name}: ${(many / few).toFixed(1)} × the time of 2,000 (${many.toFixed(0)} ms; process ${megabytes} MB)`,
    );
  }
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
await everyKind(3);
await fourEngines();
growth();
coldBesideWarm();
wholeCommand();
longLists();

const drawers = (engines: number, freeRods: boolean) =>
  [1, 2, 3].map((seed) => manyEngines(seed, engines, { freeRods }));
for (const freeRods of [false, true]) planRequest(manyEngines(7, 20, { freeRods }), { solver });
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
