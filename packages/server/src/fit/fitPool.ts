import type { DocumentFault, FitPlan, ShimPlan } from '@fettle/core';
import { Piscina } from 'piscina';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { FairQueue } from './FairQueue.js';
import type { FitTask, Solved } from './fitWorker.js';

/** After so long the best plan so far is the answer, seconds from when the search starts. */
const SEARCH_S = 20;
/** A thread that has not answered by then, against its own limits, is ended, seconds. */
const LONGEST_SEARCH_S = 40;
const THREADS = 2;
/** Memory that a search may take, MB: a request that needs more is refused, and takes no other with it. */
const MOST_MB = 1500;

/** Who asks, and whether they still do. */
export interface Asker {
  readonly client: string;
  readonly gone: AbortSignal;
}

/** Worker threads that read, check and solve requests, ready from when the server is up. */
export class FitPool {
  private readonly pool: Piscina;
  private readonly queue = new FairQueue(THREADS);

  constructor() {
    const fromSources = import.meta.url.endsWith('.ts');
    this.pool = new Piscina({
      filename: new URL(fromSources ? './fitWorker.ts' : './fitWorker.js', import.meta.url).href,
      ...(fromSources ? { execArgv: ['--import', 'tsx', '--conditions=@fettle/source'] } : {}),
      minThreads: THREADS,
      maxThreads: THREADS,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    });
  }

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

  private async run<Plan>(name: string, body: Buffer, { client, gone }: Asker, remedy: string): Promise<Plan> {
    const flag = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT));
    // A search that nobody waits for ends by itself and keeps its thread.
    const stop = () => Atomics.store(flag, 0, 1);
    gone.addEventListener('abort', stop, { once: true });
    if (gone.aborted) stop();
    try {
      const task: FitTask = { body, seconds: SEARCH_S, cancelled: flag };
      const solved = await this.queue.run(client, gone, () => this.inThread<Plan>(name, task, remedy));
      if (solved === null) throw new ProblemError('took-too-long', 'Nobody waits for the answer any more.');
      if (solved.kind === 'plan') return solved.plan;
      if (solved.kind === 'not-json') {
        throw new ProblemError('not-json', `The body cannot be read as JSON: ${solved.message}`);
      }
      throw invalidRequest(solved.faults as readonly DocumentFault[]);
    } finally {
      gone.removeEventListener('abort', stop);
    }
  }

  private async inThread<Plan>(name: string, task: FitTask, remedy: string): Promise<Solved<Plan>> {
    const abort = new AbortController();
    // Counted from when it starts: the queue has let it in.
    const timer = setTimeout(() => abort.abort(), LONGEST_SEARCH_S * 1000);
    try {
      return (await this.pool.run(task, { name, signal: abort.signal })) as Solved<Plan>;
    } catch (error) {
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new ProblemError('too-large', `The search needs more than ${MOST_MB} MB. ${remedy}`);
      }
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
