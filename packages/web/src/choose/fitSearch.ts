import { type Remote, wrap } from 'comlink';
import type { FitAnswer, FitSearch } from './fitWorker.js';

/** A worker that searches; ending it is the one way to stop a search at once. */
export class FitSearcher {
  private worker: Worker | null = null;
  private search: Remote<FitSearch> | null = null;

  /** Starts the worker, which makes itself ready. */
  start(): void {
    void this.remote;
  }

  get remote(): Remote<FitSearch> {
    this.worker ??= new Worker(new URL('./fitWorker.ts', import.meta.url), { type: 'module' });
    this.search ??= wrap<FitSearch>(this.worker);
    return this.search;
  }

  /** Stops whatever is being searched for: its promise never settles. Another worker makes itself ready. */
  stop(): void {
    this.end();
    this.start();
  }

  /** Stops for good: nobody searches here any more. */
  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.search = null;
  }
}

/** What a search answered, or an error that says where the request is wrong. */
export function resultOf<Result>(answer: FitAnswer<Result>): Result {
  if (answer.ok) return answer.result;
  throw new Error(answer.faults.map(({ path, message }) => `${path}: ${message}`).join('; '));
}
