import { ProblemError } from '../problem/problem.js';

interface Waiting {
  readonly start: () => void;
}

/** A client has so many waiting at most. */
const MOST_A_CLIENT = 16;
/** When it is worth trying again, s. */
const RETRY_S = 5;

/**
 * Shares out a few places among clients: each in turn, however many one of them asks for. Who asks for more than may wait is told to come
 * again.
 */
export class FairQueue {
  private readonly places: number;
  private running = 0;
  /** What waits, by client; the client whose turn it is comes first. */
  private readonly waiting = new Map<string, Waiting[]>();

  /** @param places how many run at once */
  constructor(places: number) {
    this.places = places;
  }

  /**
   * Runs work when it is its turn.
   *
   * @throws ProblemError `too-busy` where this client has too much waiting
   */
  async run<Result>(client: string, gone: AbortSignal, work: () => Promise<Result>): Promise<Result | null> {
    await this.turn(client);
    try {
      // Nobody waits for it any more.
      return gone.aborted ? null : await work();
    } finally {
      this.running -= 1;
      this.next();
    }
  }

  private turn(client: string): Promise<void> {
    if (this.running < this.places && this.waiting.size === 0) {
      this.running += 1;
      return Promise.resolve();
    }
    const own = this.waiting.get(client) ?? [];
    if (own.length >= MOST_A_CLIENT) {
      throw new ProblemError(
        'too-busy',
        `${MOST_A_CLIENT} requests of yours wait already; send more when they are answered.`,
        [],
        {},
        RETRY_S,
      );
    }
    return new Promise((start) => {
      this.waiting.set(client, [...own, { start }]);
    });
  }

  private next(): void {
    const [first] = this.waiting;
    if (!first || this.running >= this.places) return;
    const [client, [one, ...rest]] = first;
    // To the end of the line.
    this.waiting.delete(client);
    if (rest.length > 0) this.waiting.set(client, rest);
    this.running += 1;
    one!.start();
  }
}
