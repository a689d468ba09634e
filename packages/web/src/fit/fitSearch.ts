import { type Remote, wrap } from 'comlink';
import type { FitAnswer, FitSearch } from './fitWorker.js';

/** A search that nobody waits for any more is ended after so long, ms: most are over by then, and another worker takes a while to be ready. */
const UNWANTED_MS = 300;

/** What the worker of a search is to its owner. */
export type SearchWorker = Parameters<typeof wrap>[0] & Pick<Worker, 'terminate'>;

interface Question {
  readonly put: (search: Remote<FitSearch>) => Promise<void>;
  readonly fail: (error: Error) => void;
}

const fitWorker = (): SearchWorker => new Worker(new URL('./fitWorker.ts', import.meta.url), { type: 'module' });

/**
 * A worker that searches, one question after the other; ending it is the one way to stop a search at once. What nobody waits for any more is
 * not asked, and ended where it has begun: who changes five figures does not wait for five searches.
 */
export class FitSearcher {
  private worker: SearchWorker | null = null;
  private search: Remote<FitSearch> | null = null;
  private readonly queue: Question[] = [];
  private running: Question | null = null;

  constructor(private readonly make: () => SearchWorker = fitWorker) {}

  /** Starts the worker, which makes itself ready. */
  start(): void {
    void this.remote;
  }

  private get remote(): Remote<FitSearch> {
    if (this.worker === null) {
      const worker = this.make();
      this.worker = worker;
      worker.addEventListener('error', (event) => {
        if (this.worker === worker) this.broke((event as ErrorEvent).message);
      });
    }
    this.search ??= wrap<FitSearch>(this.worker);
    return this.search;
  }

  /** Tells all who wait; whoever asks next gets another worker. */
  private broke(message: string | undefined): void {
    const all = [...(this.running ? [this.running] : []), ...this.queue];
    this.end();
    for (const { fail } of all)
      fail(new Error(`the search did not load or stopped (${message || 'no details'}); reload the page`));
  }

  /**
   * Asks something; fails where the worker cannot answer any more.
   *
   * @param unwanted tells that nobody waits for the answer any more: the promise then never settles
   */
  ask<Result>(question: (search: Remote<FitSearch>) => Promise<Result>, unwanted?: AbortSignal): Promise<Result> {
    return new Promise((resolve, reject) => {
      if (unwanted?.aborted) return;
      const asked: Question = { put: async (search) => resolve(await question(search)), fail: reject };
      unwanted?.addEventListener('abort', () => this.drop(asked), { once: true });
      this.queue.push(asked);
      this.goOn();
    });
  }

  private goOn(): void {
    if (this.running) return;
    const next = this.queue.shift();
    if (!next) return;
    this.running = next;
    next
      .put(this.remote)
      .catch(next.fail)
      .finally(() => {
        if (this.running !== next) return;
        this.running = null;
        this.goOn();
      });
  }

  private drop(question: Question): void {
    const at = this.queue.indexOf(question);
    if (at >= 0) this.queue.splice(at, 1);
    if (this.running !== question) return;
    setTimeout(() => {
      if (this.running !== question) return;
      this.endWorker();
      this.start();
      this.goOn();
    }, UNWANTED_MS);
  }

  /** Stops whatever is being searched for: its promise never settles. Another worker makes itself ready. */
  stop(): void {
    this.end();
    this.start();
  }

  /** Stops for good: nobody searches here any more. */
  end(): void {
    this.queue.length = 0;
    this.endWorker();
  }

  private endWorker(): void {
    this.worker?.terminate();
    this.worker = null;
    this.search = null;
    this.running = null;
  }
}

/** What a search answered, or an error that says where the request is wrong. */
export function resultOf<Result>(answer: FitAnswer<Result>): Result {
  if (answer.ok) return answer.result;
  throw new Error(answer.faults.map(({ path, message }) => `${path}: ${message}`).join('; '));
}
