import type { ClearancesAtHand, JobDocument, JobStation, PairStock } from '@fettle/core';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { PairsWorker } from './pairsWorker.js';

let worker: Remote<PairsWorker> | null = null;
let last: { readonly shells: PairStock['shells']; readonly rules: PairStock['rules']; readonly key: number } | null =
  null;
let count = 0;

/** The worker, with the halves and rules of an engine in it; they are sent when they are others than before. */
function pairsOf({ shells, rules }: PairStock): { readonly pairs: Remote<PairsWorker>; readonly key: number } {
  worker ??= wrap<PairsWorker>(new Worker(new URL('./pairsWorker.ts', import.meta.url), { type: 'module' }));
  if (last === null || last.shells !== shells || last.rules !== rules) {
    count += 1;
    last = { shells, rules, key: count };
    void worker.keep(count, { shells, rules });
  }
  return { pairs: worker, key: last.key };
}

/**
 * Asks about the pairs at hand, again whenever what it is asked about changes. Until the answer is there, the one before stays, where it was of the
 * same place: no list goes and comes.
 *
 * @param about what the answer depends on beside halves and rules, the same objects for as long as they say the same; null asks nothing
 * @param place what it is asked for
 */
export function usePairs<Result>(
  { shells, rules }: Pick<JobDocument, 'shells' | 'rules'>,
  about: readonly unknown[] | null,
  place: string,
  ask: (pairs: Remote<PairsWorker>, key: number) => Promise<Result>,
): Result | null {
  const [answer, setAnswer] = useState<{ readonly place: string; readonly result: Result } | null>(null);
  const [fault, setFault] = useState<Error | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `about` stands for all that the question depends on
  useEffect(() => {
    if (about === null) return;
    let isWanted = true;
    const { pairs, key } = pairsOf({ shells, rules });
    ask(pairs, key).then(
      (result) => isWanted && setAnswer({ place, result }),
      (error: Error) => isWanted && setFault(error),
    );
    return () => {
      isWanted = false;
    };
  }, [shells, rules, place, ...(about ?? [null])]);
  // What breaks in the worker is a fault of the page: it is told as any other.
  if (fault) throw fault;
  return answer?.place === place ? answer.result : null;
}

const NONE: ClearancesAtHand = { count: 0, clearances: [] };

/** What the pairs at hand would give at each of some stations; nothing until it is known. */
export function useAtHand(
  document: Pick<JobDocument, 'shells' | 'rules'>,
  stations: ReadonlyMap<string, JobStation>,
): (station: string) => ClearancesAtHand {
  const found = usePairs(
    document,
    [stations],
    'all stations',
    async (pairs, key) => new Map(await pairs.atHand(key, [...stations.values()])),
  );
  return (id) => found?.get(id) ?? NONE;
}
