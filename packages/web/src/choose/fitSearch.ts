import { type Remote, wrap } from 'comlink';
import type { FitAnswer, FitSearch } from './fitWorker.js';

/** A worker that searches; ending it is the one way to stop a search at once. */
export class FitSearcher {
  private worker: Worker | null = null;
  private search: Remote<FitSearch> | null = null;
  private broken: Promise<never> = new Promise(() => {});

  /** Starts the worker, which makes itself ready. */
  start(): void {
    void this.remote;
  }

  private get remote(): Remote<FitSearch> {
    if (this.worker === null) {
      const worker = new Worker(new URL('./fitWorker.ts', import.meta.url), { type: 'module' });
      this.worker = worker;
      this.broken = new Promise((_, reject) => {
        worker.addEventListener('error', (event) =>
          reject(
            new Error(
              `the search could not be loaded or broke off (${event.message || 'no more is known'}); load the page anew`,
            ),
          ),
        );
      });
      // Told to those who wait for an answer.
      this.broken.catch(() => {});
    }
    this.search ??= wrap<FitSearch>(this.worker);
    return this.search;
  }

  /** Asks something; fails where the worker cannot answer any more. */
  ask<Result>(question: (search: Remote<FitSearch>) => Promise<Result>): Promise<Result> {
    const answer = question(this.remote);
    return Promise.race([answer, this.broken]);
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
