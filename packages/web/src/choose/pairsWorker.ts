import {
  type BarredPair,
  barredPairs,
  type Candidate,
  type ClearancesAtHand,
  clearancesAtHand,
  type JobStation,
  type PairStock,
  stationCandidates,
} from '@fettle/core';
import { expose } from 'comlink';

/** Halves and rules are large: they are sent once, and asked about by a number. What was asked last stays. */
const KEPT = 3;
const stocks = new Map<number, PairStock>();

function stockOf(key: number): PairStock {
  const stock = stocks.get(key);
  if (!stock) throw new Error(`shell list ${key} is no longer known here`);
  return stock;
}

/** The pairs at hand for a station, listed off the page's main thread: hundreds of kinds make tens of thousands of pairs. */
const pairs = {
  keep: (key: number, stock: PairStock): void => {
    stocks.set(key, stock);
    for (const old of [...stocks.keys()].slice(0, -KEPT)) stocks.delete(old);
  },
  /** What the pairs would give at each of some stations. */
  atHand: (key: number, stations: readonly JobStation[]): [string, ClearancesAtHand][] =>
    stations.map((station) => [station.id, clearancesAtHand(stockOf(key), station)]),
  candidates: (
    key: number,
    station: JobStation,
    most: number,
    chosen: Pick<Candidate, 'upper' | 'lower'> | null,
  ): { readonly candidates: Candidate[]; readonly all: number } => ({
    candidates: stationCandidates(stockOf(key), station, most, chosen),
    all: clearancesAtHand(stockOf(key), station).count,
  }),
  barred: (key: number, station: JobStation, most: number): BarredPair[] => barredPairs(stockOf(key), station, most),
};
export type PairsWorker = typeof pairs;

expose(pairs);
