import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import { FitSearcher } from './fitSearch.js';
import type { FitSearch } from './fitWorker.js';

const sideSearcher = new FitSearcher();
sideSearcher.start();

export interface Asked<Result> {
  readonly result: Result | null;
  readonly fault: string | null;
}

const WAITING = { result: null, fault: null };

/**
 * Asks the search something beside the plan, again whenever what it is asked about changes.
 *
 * @param about what the answer depends on, the same object for as long as it says the same; null asks nothing
 * @param place what it is asked for, where there are several
 */
export function useAsked<Result>(
  about: object | null,
  ask: (search: Remote<FitSearch>) => Promise<Result>,
  place = '',
): Asked<Result> {
  const [answer, setAnswer] = useState<(Asked<Result> & { about: object; place: string }) | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: these stand for all that the question depends on
  useEffect(() => {
    if (about === null) return;
    const unwanted = new AbortController();
    const { signal } = unwanted;
    sideSearcher
      .ask(ask, signal)
      .then((result) => !signal.aborted && setAnswer({ about, place, result, fault: null }))
      .catch((error: Error) => !signal.aborted && setAnswer({ about, place, result: null, fault: error.message }));
    return () => unwanted.abort();
  }, [about, place]);
  return answer !== null && answer.about === about && answer.place === place ? answer : WAITING;
}
