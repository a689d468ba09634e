import type { Request, RequestHandler, Response } from 'express';
import { ProblemError } from '../problem/problem.js';

const MB = 2 ** 20;
/** Bodies of no more than this take no room that counts. */
const SMALL = 64 * 1024;
/** What waits longer is told to come again, ms and s. */
const LONGEST_MS = 10_000;
const RETRY_S = 5;

interface Waiting {
  readonly client: string;
  readonly bytes: number;
  readonly start: () => void;
}

/**
 * The memory for bodies that are being read and answered, shared out so that many at once cannot fill the machine: a body waits, unread, until
 * there is room for it. Of who waits, the one comes first whose client has the least in there.
 */
export class BodyRoom {
  private readonly all: number;
  private taken = 0;
  private readonly byClient = new Map<string, number>();
  private waiting: Waiting[] = [];

  /** @param mb room for all bodies together; each is counted as large as it says, or as large as it may be */
  constructor(mb: number) {
    this.all = mb * MB;
  }

  /** Waits until there is room. @returns gives it back @throws ProblemError `too-busy` where there was none for too long */
  async take(client: string, bytes: number): Promise<() => void> {
    if (this.taken + bytes > this.all || this.waiting.length > 0) {
      await new Promise<void>((resolve, reject) => {
        const timer = setTimeout(() => {
          this.waiting = this.waiting.filter((one) => one !== own);
          const message = 'Too many large requests are under way; what you sent was not read. Send it again shortly.';
          reject(new ProblemError('too-busy', message, [], {}, RETRY_S));
        }, LONGEST_MS);
        const own: Waiting = {
          client,
          bytes,
          start: () => {
            clearTimeout(timer);
            resolve();
          },
        };
        this.waiting.push(own);
      });
    } else this.count(client, bytes);
    let isTaken = true;
    return () => {
      if (!isTaken) return;
      isTaken = false;
      this.count(client, -bytes);
      this.next();
    };
  }

  private count(client: string, bytes: number): void {
    this.taken += bytes;
    const own = (this.byClient.get(client) ?? 0) + bytes;
    if (own > 0) this.byClient.set(client, own);
    else this.byClient.delete(client);
  }

  private next(): void {
    for (;;) {
      const has = ({ client }: Waiting) => this.byClient.get(client) ?? 0;
      const first = this.waiting.reduce<Waiting | null>(
        (best, one) => (!best || has(one) < has(best) ? one : best),
        null,
      );
      if (!first || (this.taken + first.bytes > this.all && this.taken > 0)) return;
      this.waiting = this.waiting.filter((one) => one !== first);
      // Counted here already: between now and when it goes on others may ask.
      this.count(first.client, first.bytes);
      first.start();
    }
  }

  /** Lets a body be read once there is room for it. @param largest bytes that it may have at most */
  gate(largest: number, clientOf: (request: Request, response: Response) => string): RequestHandler {
    return async (request, response, next) => {
      const told = Number(request.get('content-length') ?? Number.NaN);
      // What is packed, or does not say, may be as large as any.
      const isTold = Number.isSafeInteger(told) && request.get('content-encoding') === undefined;
      const bytes = Math.min(largest, isTold ? told : largest);
      if (bytes > SMALL) {
        const giveBack = await this.take(clientOf(request, response), bytes);
        response.on('close', giveBack);
        // Whoever waited may be gone by now.
        if (response.closed || response.destroyed) giveBack();
      }
      next();
    };
  }
}
