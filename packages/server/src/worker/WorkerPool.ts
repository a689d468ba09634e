import { Piscina } from 'piscina';
import { ProblemError } from '../problem/problem.js';
import { FairQueue } from './FairQueue.js';
import { threadArguments } from './threadArguments.js';

/** Who asks, and whether they still do. */
export interface Asker {
  /** Whom work is shared out by. */
  readonly client: string;
  /** Aborted when the caller hangs up. */
  readonly gone: AbortSignal;
}

/** What the threads of a pool may take. */
interface Bounds {
  readonly threads: number;
  /** True if they wait for the first task to begin; once there, they stay. */
  readonly isLazy?: boolean;
  /** Memory of one thread, MB: a task that needs more is refused, and takes no other with it. */
  readonly mostMb: number;
  /** A thread that has not answered by then is ended, seconds from when its work starts. */
  readonly longestS: number;
  /** Threads that nobody has asked for so long may be made anew, ms; omitted: half a minute. */
  readonly idleMs?: number;
}

const IDLE_MS = 30_000;
/** Idle threads are made anew where the process holds so much more than when they were made, bytes: what they held is given back. */
const MUCH_BYTES = 200 * 2 ** 20;

/** How a task is spoken of where it cannot be done. */
interface Words {
  /** As `The search`. */
  readonly what: string;
  /** What to do about it. */
  readonly remedy: string;
}

/** Threads for work that would hold up the server's main loop, shared out fairly among who asks; ready from when the server is up. */
export class WorkerPool {
  private readonly file: string;
  private readonly execArgv: string[];
  private readonly queue: FairQueue;
  private readonly bounds: Bounds;
  private pool: Piscina;
  /** What the process held when the threads were made, bytes. */
  private heldBefore = process.memoryUsage.rss();
  private running = 0;
  private idle: NodeJS.Timeout | null = null;
  private isClosed = false;

  /**
   * @param at the module that asks, beside which its worker stands
   * @param script the worker's file without its ending
   */
  constructor(at: string, script: string, bounds: Bounds) {
    this.bounds = bounds;
    this.queue = new FairQueue(bounds.threads);
    this.file = new URL(`${script}.${at.endsWith('.ts') ? 'ts' : 'js'}`, at).href;
    this.execArgv = threadArguments(at);
    this.pool = this.threads();
  }

  private threads(): Piscina {
    const { threads, isLazy, mostMb } = this.bounds;
    return new Piscina({
      filename: this.file,
      execArgv: this.execArgv,
      minThreads: isLazy ? 0 : threads,
      idleTimeout: Number.POSITIVE_INFINITY,
      maxThreads: threads,
      resourceLimits: { maxOldGenerationSizeMb: mostMb },
    });
  }

  /**
   * Runs a function of the worker when it is the asker's turn.
   *
   * @param name the exported function
   * @throws ProblemError `too-large`, `too-busy`; `took-too-long` where the thread does not answer, or nobody waits for it any more
   */
  async run<Result>(name: string, task: object, { client, gone }: Asker, words: Words): Promise<Result> {
    const result = await this.queue.run(client, gone, () => this.inThread<Result>(name, task, words));
    if (result === null) throw new ProblemError('took-too-long', 'The caller has gone.');
    return result;
  }

  private async inThread<Result>(name: string, task: object, { what, remedy }: Words): Promise<Result> {
    const { mostMb, longestS } = this.bounds;
    const abort = new AbortController();
    this.running += 1;
    if (this.idle) clearTimeout(this.idle);
    // Counted from when it starts: the queue has let it in.
    const timer = setTimeout(() => abort.abort(), longestS * 1000);
    try {
      return (await this.pool.run(task, { name, signal: abort.signal })) as Result;
    } catch (error) {
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new ProblemError('too-large', `${what} needs more than ${mostMb} MB. ${remedy}`);
      }
      if (!abort.signal.aborted) throw error;
      throw new ProblemError('took-too-long', `${what} had no answer after ${longestS} s. ${remedy}`);
    } finally {
      clearTimeout(timer);
      this.running -= 1;
      if (this.running === 0 && !this.isClosed) {
        this.idle = setTimeout(() => this.giveBack(), this.bounds.idleMs ?? IDLE_MS).unref();
      }
    }
  }

  /** A thread keeps what it once needed for as long as it lives: after much, fresh ones take the place of idle ones. */
  private giveBack(): void {
    if (process.memoryUsage.rss() - this.heldBefore < MUCH_BYTES) return;
    const before = this.pool;
    this.pool = this.threads();
    void before.destroy().then(() => {
      this.heldBefore = process.memoryUsage.rss();
    });
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.idle) clearTimeout(this.idle);
    await this.pool.destroy();
  }
}
