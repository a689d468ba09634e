import type { FitPlan, FitRequest } from '@fettle/core';
import { Piscina } from 'piscina';
import { ProblemError } from '../problem/problem.js';
import type { FitTask } from './fitWorker.js';

/** After so long the best plan so far is the answer, seconds. */
const SEARCH_S = 20;
/** A search that has no plan at all by then loses its thread, seconds. */
const LONGEST_SEARCH_S = 30;

/** Worker threads that solve fit requests. */
export class FitPool {
  private readonly pool: Piscina<FitTask, FitPlan>;

  constructor() {
    const fromSources = import.meta.url.endsWith('.ts');
    this.pool = new Piscina<FitTask, FitPlan>({
      filename: new URL(fromSources ? './fitWorker.ts' : './fitWorker.js', import.meta.url).href,
      ...(fromSources ? { execArgv: ['--import', 'tsx', '--conditions=@fettle/source'] } : {}),
      minThreads: 0,
      maxThreads: 2,
      maxQueue: 64,
      idleTimeout: 60_000,
    });
  }

  /**
   * @param cancelled ends the search when it is aborted
   * @throws ProblemError `took-too-long` after 30 seconds
   */
  async solve(request: FitRequest, cancelled: AbortSignal): Promise<FitPlan> {
    const abort = new AbortController();
    const timer = setTimeout(() => abort.abort(), LONGEST_SEARCH_S * 1000);
    cancelled.addEventListener('abort', () => abort.abort(), { once: true });
    try {
      return await this.pool.run({ request, seconds: SEARCH_S }, { signal: abort.signal });
    } catch (error) {
      if (!abort.signal.aborted) throw error;
      throw new ProblemError(
        'took-too-long',
        `No plan after ${LONGEST_SEARCH_S} s. Split the request, or widen the stock or the spread.`,
      );
    } finally {
      clearTimeout(timer);
    }
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
