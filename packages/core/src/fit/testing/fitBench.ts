/** `npm run bench`: the search against HiGHS, warm, on the same requests in the same run. Only ratios mean anything. */
import { fit } from '../fit.js';
import { type FitRequest, type FitRequestInput, fitRequestSchema } from '../fitRequest.js';
import { leastCostOf, programmeOf } from './milp.js';
import { seeded } from './randomRequest.js';

/** An engine in graded halves with a short drawer. */
function gradedEngine(seed: number, mains: number, rods: number, grades: number): FitRequest {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const um = (value: number) => Math.round(value) / 1000;
  const of = (family: 'main' | 'rod', count: number, journal: number, bore: number) =>
    Array.from({ length: count }, (_, at) => ({
      station: { id: `${family}${at}`, family, journal: um(journal + whole(0, 18)), aim: 0.035, low: 0.02, high: 0.05 },
      housing: {
        id: `${family}h${at}`,
        family,
        bore: um(bore + whole(0, 19)),
        station: family === 'main' ? `main${at}` : null,
      },
    }));
  const places = [...of('main', mains, 59_976, 64_000), ...of('rod', rods, 47_976, 52_000)];
  const shells: FitRequestInput['shells'] = (['main', 'rod'] as const).flatMap((family) =>
    Array.from({ length: grades }, (_, grade) => grade).flatMap((grade) =>
      (['upper', 'lower'] as const).map((half) => ({
        id: `${family}-${half}-${grade}`,
        family,
        series: 'A',
        half,
        wall: um(1_995 + 3 * (grade - (grades - 1) / 2)),
        stock: whole(1, 3),
      })),
    ),
  );
  return fitRequestSchema.parse({
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: places.map(({ station }) => station),
    housings: places.map(({ housing }) => housing),
    shells,
  });
}

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

async function compare(name: string, requests: readonly FitRequest[]): Promise<void> {
  const ratios: number[] = [];
  let slowest = 0;
  for (const request of requests) {
    const programme = programmeOf(request);
    if (programme === null) continue;
    const before = performance.now();
    const plan = fit(request);
    const between = performance.now();
    const least = await leastCostOf(programme);
    const after = performance.now();
    if ((least === null) !== (plan.cost === null) || Math.abs((least ?? 0) - (plan.cost ?? 0)) > 1e-4) {
      throw new Error(`${name}: the search says ${plan.cost}, HiGHS says ${least}`);
    }
    ratios.push((after - between) / (between - before));
    slowest = Math.max(slowest, between - before);
  }
  console.log(
    `${name}: ${median(ratios).toFixed(1)} × as fast as HiGHS (median of ${ratios.length}; slowest search ${slowest.toFixed(1)} ms)`,
  );
}

const batch = (count: number, mains: number, rods: number, grades: number) =>
  Array.from({ length: count }, (_, at) => gradedEngine(at + 1, mains, rods, grades));

await compare('warming up', batch(30, 5, 4, 5));
await compare('5 mains in 5 grades', batch(60, 5, 0, 5));
await compare('5 mains and 4 free rods in 5 grades', batch(60, 5, 4, 5));
await compare('7 mains and 8 free rods in 6 grades', batch(60, 7, 8, 6));
