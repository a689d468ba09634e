import { type JobSummary, STAGES } from '@fettle/core';
import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useSetQuery } from '../base/useQuery.js';
import { useSettled } from '../base/useSettled.js';
import { useBy } from '../person/useBy.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import type { BenchFilter, OffBench } from './EnginePage.js';

/** An engine that was just closed. */
interface Closed {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  /** How many halves and pieces were reserved for it. */
  readonly count: number;
  readonly isFitted: boolean;
}

/** What closing an engine did, in a sentence. */
export function closedText({ name, count, isFitted }: Closed): string {
  if (count === 0) return `${name} closed.`;
  const what = count === 1 ? 'one part' : `${count} parts`;
  return isFitted
    ? `${name} closed; ${what} fitted in it removed from stock.`
    : `${name} closed; ${what} back in stock.`;
}

/** The list of open engines: what narrows it, its pages, and closing and reopening an engine. */
export function useBenchList() {
  const by = useBy();
  const [query] = useSearchParams();
  const setQuery = useSetQuery(true);
  const [typed, setTyped] = useState(query.get('words') ?? '');
  const words = useSettled(typed.trim(), 200);
  const stage = STAGES.find((one) => one === query.get('stage')) ?? null;
  const person = query.get('person');
  const filter = useMemo(() => ({ words, stage, person }), [words, stage, person]);
  // Where each page shown so far begins; another search begins again.
  const [pages, setPages] = useState<{ filter: BenchFilter; after: readonly string[] }>({ filter, after: [] });
  const after = pages.filter === filter ? pages.after : [];
  const [fault, setFault] = useState<string | null>(null);
  const [closed, setClosed] = useState<Closed | null>(null);
  useEffect(() => {
    setQuery({ words: words === '' ? null : words });
  }, [words, setQuery]);
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    action().catch((error: unknown) => setFault(refusalInWords(error)));
  };
  return {
    typed,
    setTyped,
    filter,
    setStage: (next: string | null) => setQuery({ stage: next }),
    setPerson: (next: string | null) => setQuery({ person: next }),
    /** Where each page begins that is shown; the first one at null. */
    starts: [null, ...after],
    showMore: (next: string) => setPages({ filter, after: [...after, next] }),
    fault,
    /** The engine that was closed last, until it is reopened. */
    closed,
    close: ({ id, version, name, held }: JobSummary, reserved: OffBench) =>
      act(async () => {
        const isFitted = reserved === 'fitted';
        if (isFitted) await tell('setFitted', { id, body: { by, fitted: true } });
        const left = await tell('deleteJob', { id, version, by });
        setClosed({ id, name, version: left.version, count: held.reserved, isFitted });
      }),
    reopen: ({ id, version, isFitted }: Pick<Closed, 'id' | 'version' | 'isFitted'>) =>
      act(async () => {
        await tell('restoreJob', { id, body: { version, by } });
        if (isFitted) await tell('setFitted', { id, body: { by, fitted: false } });
        setClosed(null);
      }),
  };
}
