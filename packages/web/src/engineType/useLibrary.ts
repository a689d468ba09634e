import type { TypeSummary, TypeView } from '@fettle/core';
import { useEffect, useState } from 'react';
import { fetchType, fetchTypes } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';

export interface Library {
  readonly types: readonly TypeSummary[];
  /** The type that is wanted, in its last revision; null until it is there. */
  readonly view: TypeView | null;
  /** What kept the library from being read. */
  readonly fault: string | null;
}

/** The types of the library to choose from, and the one that is chosen. @param wanted its id; empty for none */
export function useLibrary(wanted: string): Library {
  const [types, setTypes] = useState<readonly TypeSummary[]>([]);
  const [view, setView] = useState<TypeView | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    fetchTypes('', false)
      .then(setTypes)
      .catch((error: unknown) => setFault(refusalInWords(error)));
  }, []);
  useEffect(() => {
    setView(null);
    if (wanted === '') return;
    let isCurrent = true;
    fetchType(wanted)
      .then((found) => isCurrent && setView(found))
      .catch((error: unknown) => isCurrent && setFault(refusalInWords(error)));
    return () => {
      isCurrent = false;
    };
  }, [wanted]);
  return { types, view, fault };
}
