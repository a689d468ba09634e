import type { FitPlan, ShimPlan } from '@fettle/core';
import { fitRequestSchema, planRequest, readySearch, shimRequestSchema, shims, TooManyStacks } from '@fettle/core';
import { readBytes, type Unread } from '../worker/readBytes.js';

export interface FitTask {
  /** The request as it came. */
  readonly body: Uint8Array;
  /** After so long the answer is what was found till then. */
  readonly seconds: number;
  /** One shared number: 1 once nobody wants the answer any more. */
  readonly cancelled: Int32Array<SharedArrayBuffer>;
}

/** What came of a request. */
export type Solved<Plan> = { readonly kind: 'plan'; readonly plan: Plan } | Unread;

const clock = () => performance.now();

/** Loaded and run once from when the thread starts, so that no search waits for it. */
const ready = readySearch(clock);

/** Runs in a worker thread: neither reading nor searching holds up the server's main loop. A cancelled search ends at its next step. */
export default async function solve(task: FitTask): Promise<Solved<FitPlan>> {
  const solver = await ready;
  const read = readBytes(task.body, fitRequestSchema);
  if (read.kind !== 'read') return read;
  const plan = planRequest(read.value, {
    solver,
    clock,
    until: clock() + 1000 * task.seconds,
    isStopped: () => Atomics.load(task.cancelled, 0) === 1,
  });
  return { kind: 'plan', plan };
}

/** Answers a shim request, or says why it cannot be gone through. */
export async function chooseShims(task: FitTask): Promise<Solved<ShimPlan>> {
  const read = readBytes(task.body, shimRequestSchema);
  if (read.kind !== 'read') return read;
  try {
    return { kind: 'plan', plan: shims(read.value) };
  } catch (error) {
    if (error instanceof TooManyStacks)
      return { kind: 'faults', faults: [{ path: '/counts', message: error.message }] };
    throw error;
  }
}
