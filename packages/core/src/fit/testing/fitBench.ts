/** `npm run bench`: the search against HiGHS, warm, on the same requests in the same run. Only ratios mean anything. */
import { fit } from '../fit.js';
import type { FitRequest } from '../fitRequest.js';
import { leastCostOf, programmeOf } from './milp.js';
import { gradedEngine } from './randomRequest.js';

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
