import { type InstrumentSummary, instrumentKind } from '@fettle/core';
import { useMemo, useState } from 'react';
import { api } from '../wire/api.js';
import { standingOf } from './instrumentWords.js';

const NONE: readonly InstrumentSummary[] = [];

function isFound({ instrument }: InstrumentSummary, words: readonly string[]): boolean {
  const { number, kind, holder, place } = instrument;
  const all = `${number} ${instrumentKind(kind).word} ${holder} ${place}`.toLowerCase();
  return words.every((word) => all.includes(word));
}

/** The instruments in use, or those retired, that a search finds: every word of it in number, kind, holder or location. */
export function useInstrumentList() {
  const { data, error } = api.useListInstrumentsQuery({}, { refetchOnMountOrArgChange: true });
  const instruments = data?.instruments ?? NONE;
  const [search, setSearch] = useState('');
  const [showsRetired, setShowsRetired] = useState(false);
  const words = search.trim().toLowerCase();
  const shown = useMemo(() => {
    const sought = words.split(/\s+/u).filter(Boolean);
    return instruments.filter((one) => (one.instrument.state === 'retired') === showsRetired && isFound(one, sought));
  }, [instruments, showsRetired, words]);
  const inUse = instruments.filter(({ instrument }) => instrument.state !== 'retired');
  return {
    instruments,
    error,
    isLoading: data === undefined && !error,
    search,
    setSearch,
    isSearching: words !== '',
    showsRetired,
    setShowsRetired,
    retired: instruments.length - inUse.length,
    shown,
    /** Those in use that are overdue or were found wrong. */
    amiss: inUse.filter((one) => ['wrong', 'overdue'].includes(standingOf(one))),
  };
}

/** The instruments that are listed, and what narrows them. */
export type InstrumentsListed = ReturnType<typeof useInstrumentList>;
