import type { FitPlan, FitRequest, ShimPlan, ShimRequest } from '@fettle/core';
import { fit, readySearch, shims, TooManyStacks } from '@fettle/core';

export interface FitTask {
  readonly request: FitRequest;
  /** After so long the answer is what was found till then. */
  readonly seconds: number;
  /** One shared number: 1 once nobody wants the answer any more. */
  readonly cancelled: Int32Array<SharedArrayBuffer>;
}

const clock = () => performance.now();

/** Loaded and run once from when the thread starts, so that no search waits for it. */
const ready = readySearch(clock);

/** Runs in a worker thread: searches never run on the server's main loop. A cancelled search ends at its next step. */
export default async function solve({ request, seconds, cancelled }: FitTask): Promise<FitPlan> {
  const solver = await ready;
  return fit(request, {
    solver,
    clock,
    until: clock() + 1000 * seconds,
    isStopped: () => Atomics.load(cancelled, 0) === 1,
  });
}

/** Answers a shim request; or says why it cannot be gone through, for a class of error does not pass between threads. */
export function chooseShims(request: ShimRequest): { readonly plan: ShimPlan } | { readonly tooMany: string } {
  try {
    return { plan: shims(request) };
  } catch (error) {
    if (error instanceof TooManyStacks) return { tooMany: error.message };
    throw error;
  }
}
