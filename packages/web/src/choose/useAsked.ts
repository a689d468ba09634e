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
 * Asks the search something beside the plan, again whenever the key changes.
 *
 * @param key what the answer depends on; null asks nothing
 */
export function useAsked<Result>(
  key: string | null,
  ask: (search: Remote<FitSearch>) => Promise<Result>,
): Asked<Result> {
  const [answer, setAnswer] = useState<(Asked<Result> & { key: string }) | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for all that the question depends on
  useEffect(() => {
    if (key === null) return;
    let isCurrent = true;
    sideSearcher
      .ask(ask)
      .then((result) => isCurrent && setAnswer({ key, result, fault: null }))
      .catch((error: Error) => isCurrent && setAnswer({ key, result: null, fault: error.message }));
    return () => {
      isCurrent = false;
    };
  }, [key]);
  return answer !== null && answer.key === key ? answer : WAITING;
}
