import { type FitPlan, type FitRequest, fit, loadIntegerSolver, wantsIntegerSolver } from '@fettle/core';

export interface FitTask {
  readonly request: FitRequest;
  /** After so long the best plan found is good enough. */
  readonly seconds: number;
}

/** Runs in a worker thread: searches never run on the server's main loop. */
export default async function solve({ request, seconds }: FitTask): Promise<FitPlan> {
  const solver = wantsIntegerSolver(request) ? await loadIntegerSolver() : null;
  const end = performance.now() + 1000 * seconds;
  return fit(request, { solver, isStopped: () => performance.now() > end });
}
