import type { DocumentFault, FitPlan, ShimPlan } from '@fettle/core';
import {
  faultsOf,
  fit,
  fitRequestSchema,
  readySearch,
  shimRequestSchema,
  shims,
  storageFaults,
  TooManyStacks,
} from '@fettle/core';
import type { z } from 'zod';

export interface FitTask {
  /** The request as it came. */
  readonly body: Uint8Array;
  /** After so long the answer is what was found till then. */
  readonly seconds: number;
  /** One shared number: 1 once nobody wants the answer any more. */
  readonly cancelled: Int32Array<SharedArrayBuffer>;
}

/** What came of a request. A class of error does not pass between threads: what is wrong is told as data. */
export type Solved<Plan> =
  | { readonly kind: 'plan'; readonly plan: Plan }
  | { readonly kind: 'not-json'; readonly message: string }
  | { readonly kind: 'faults'; readonly faults: readonly DocumentFault[] };

const clock = () => performance.now();

/** Loaded and run once from when the thread starts, so that no search waits for it. */
const ready = readySearch(clock);

/** Reads and checks a body, and does something with what it says. */
async function solved<Schema extends z.ZodType, Plan>(
  { body }: FitTask,
  schema: Schema,
  work: (request: z.output<Schema>) => Plan | Promise<Plan>,
): Promise<Solved<Plan>> {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body));
  } catch (error) {
    return { kind: 'not-json', message: (error as Error).message };
  }
  const unstorable = storageFaults(value);
  if (unstorable.length > 0) return { kind: 'faults', faults: unstorable };
  const read = schema.safeParse(value);
  if (!read.success) return { kind: 'faults', faults: faultsOf(read.error) };
  return { kind: 'plan', plan: await work(read.data) };
}

/** Runs in a worker thread: neither reading nor searching holds up the server's main loop. A cancelled search ends at its next step. */
export default async function solve(task: FitTask): Promise<Solved<FitPlan>> {
  const solver = await ready;
  return solved(task, fitRequestSchema, (request) =>
    fit(request, {
      solver,
      clock,
      until: clock() + 1000 * task.seconds,
      isStopped: () => Atomics.load(task.cancelled, 0) === 1,
    }),
  );
}

/** Answers a shim request, or says why it cannot be gone through. */
export async function chooseShims(task: FitTask): Promise<Solved<ShimPlan>> {
  try {
    return await solved(task, shimRequestSchema, (request) => shims(request));
  } catch (error) {
    if (error instanceof TooManyStacks)
      return { kind: 'faults', faults: [{ path: '/counts', message: error.message }] };
    throw error;
  }
}
