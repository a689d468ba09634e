import { type FitPlan, type FitRequest, fit } from '@fettle/core';

/** Runs in a worker thread: searches never run on the server's main loop. */
export default function solve(request: FitRequest): FitPlan {
  return fit(request);
}
