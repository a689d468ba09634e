import type { FitPlan, FitRequest, ShimPlan, ShimRequest } from '@fettle/core';
import { Piscina } from 'piscina';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import type { chooseShims, FitTask } from './fitWorker.js';

/** After so long the best plan so far is the answer, seconds. */
const SEARCH_S = 20;
/** A thread that has not answered by then, against its own limits, is ended, seconds. */
const LONGEST_SEARCH_S = 40;
const THREADS = 2;

/** Worker threads that solve fit requests, ready from when the server is up. */
export class FitPool {
  private readonly pool: Piscina;

  constructor() {
    const fromSources = import.meta.url.endsWith('.ts');
    this.pool = new Piscina({
      filename: new URL(fromSources ? './fitWorker.ts' : './fitWorker.js', import.meta.url).href,
      ...(fromSources ? { execArgv: ['--import', 'tsx', '--conditions=@fettle/source'] } : {}),
      minThreads: THREADS,
      maxThreads: THREADS,
      maxQueue: 64,
    });
  }

  /**
   * @param cancelled ends the search when it is aborted
   * @returns after 20 seconds what was found till then
   * @throws ProblemError `took-too-long` where the thread does not answer at all
   */
  async solve(request: FitRequest, cancelled: AbortSignal): Promise<FitPlan> {
    const flag = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT));
    // A search that nobody waits for ends by itself and keeps its thread.
    const stop = () => Atomics.store(flag, 0, 1);
    cancelled.addEventListener('abort', stop, { once: true });
    if (cancelled.aborted) stop();
    try {
      const task: FitTask = { request, seconds: SEARCH_S, cancelled: flag };
      return await this.run<FitPlan>(task, 'default', 'Split the request, or widen the stock or the spread.');
    } finally {
      cancelled.removeEventListener('abort', stop);
    }
  }

  /** @throws ProblemError `invalid-request` for more stacks of rings than can be gone through; `took-too-long` */
  async shims(request: ShimRequest): Promise<ShimPlan> {
    const answer = await this.run<ReturnType<typeof chooseShims>>(
      request,
      'chooseShims',
      'Allow fewer rings, or leave out pieces.',
    );
    if ('tooMany' in answer) throw invalidRequest([{ path: '/counts', message: answer.tooMany }]);
    return answer.plan;
  }

  private async run<Result>(task: unknown, name: string, remedy: string): Promise<Result> {
    const abort = new AbortController();
    const timer = setTimeout(() => abort.abort(), LONGEST_SEARCH_S * 1000);
    try {
      return (await this.pool.run(task, { name, signal: abort.signal })) as Result;
    } catch (error) {
      if (!abort.signal.aborted) throw error;
      throw new ProblemError('took-too-long', `No answer after ${LONGEST_SEARCH_S} s. ${remedy}`);
    } finally {
      clearTimeout(timer);
    }
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
