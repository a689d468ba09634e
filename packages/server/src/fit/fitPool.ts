import type { FitPlan, ShimPlan } from '@fettle/core';
import { unreadProblem } from '../worker/readBytes.js';
import { type Asker, WorkerPool } from '../worker/WorkerPool.js';
import type { FitTask, Solved } from './fitWorker.js';

/** After so long the best plan so far is the answer, seconds from when the search starts. */
const SEARCH_S = 20;
/** What the threads may take; a search ends by itself before they are ended. */
const BOUNDS = { threads: 2, mostMb: 400, longestS: 40 };

/** Worker threads that read, check and solve requests. */
export class FitPool {
  private readonly pool = new WorkerPool(import.meta.url, './fitWorker', BOUNDS);

  /**
   * @param body a fit request as it came
   * @returns after 20 seconds what was found till then
   * @throws ProblemError `not-json`, `invalid-request`, `too-large`, `too-busy`; `took-too-long` where the thread does not answer at all
   */
  solve(body: Buffer, asker: Asker): Promise<FitPlan> {
    return this.run<FitPlan>('default', body, asker, 'Split the request, or widen the stock or the spread.');
  }

  /** The same for a shim request; `invalid-request` for more stacks of rings than can be gone through. */
  shims(body: Buffer, asker: Asker): Promise<ShimPlan> {
    return this.run<ShimPlan>('chooseShims', body, asker, 'Allow fewer rings, or leave out pieces.');
  }

  private async run<Plan>(name: string, body: Buffer, asker: Asker, remedy: string): Promise<Plan> {
    const { gone } = asker;
    const flag = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT));
    // A search that nobody waits for ends by itself and keeps its thread.
    const stop = () => Atomics.store(flag, 0, 1);
    gone.addEventListener('abort', stop, { once: true });
    if (gone.aborted) stop();
    try {
      const task: FitTask = { body, seconds: SEARCH_S, cancelled: flag };
      const solved = await this.pool.run<Solved<Plan>>(name, task, asker, { what: 'The search', remedy });
      if (solved.kind === 'plan') return solved.plan;
      throw unreadProblem(solved);
    } finally {
      gone.removeEventListener('abort', stop);
    }
  }

  close(): Promise<void> {
    return this.pool.close();
  }
}
