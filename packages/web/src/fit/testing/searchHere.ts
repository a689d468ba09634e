import {
  alternativesAt,
  drawnClearance,
  type FitOptions,
  fit,
  placementsOf,
  planVariants,
  setSavings,
} from '@fettle/core';
import { expose } from 'comlink';
import type { FitSearch } from '../fitWorker.js';

const limits: FitOptions = { prices: true };

/** What the page's worker answers, by the same functions, but without the integer solver: small engines do not need it. */
const search: Partial<FitSearch> = {
  solve: async (problem) => fit(problem, limits),
  alternatives: async (problem, station) => alternativesAt(problem, station, limits),
  placements: async (problem) => placementsOf(problem, { engine: '', family: 'rod' }, limits),
  setSavings: async (problem, cost) => setSavings(problem, cost, limits),
  variants: async (problem) => planVariants(problem, limits),
  drawn: async (draw, draws, seed) => drawnClearance(draw, draws, seed),
};

/** Stands in for a worker in tests of hooks: it answers over a port, in the same thread. */
export class SearchHere {
  private readonly page: MessagePort;
  private readonly other: MessagePort;

  constructor() {
    const { port1, port2 } = new MessageChannel();
    this.page = port1;
    this.other = port2;
    expose(search, port2);
    port1.start();
  }

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.page.postMessage(message, transfer);
  }

  addEventListener(type: string, listener: EventListener): void {
    this.page.addEventListener(type, listener);
  }

  removeEventListener(type: string, listener: EventListener): void {
    this.page.removeEventListener(type, listener);
  }

  terminate(): void {
    this.page.close();
    this.other.close();
  }
}
