import { type FitPlan, type FitRequest, fit } from '@fettle/core';

export interface FitTask {
  readonly request: FitRequest;
  /** After so long the best plan found is good enough. */
  readonly seconds: number;
}

/** Runs in a worker thread: searches never run on the server's main loop. */
export default function solve({ request, seconds }: FitTask): FitPlan {
  const end = performance.now() + 1000 * seconds;
  return fit(request, { isStopped: () => performance.now() > end });
}
