import { MOST_TYPES_AT_ONCE, type TypeSummary, type TypeView } from '@fettle/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';

export interface Library {
  readonly types: readonly TypeSummary[];
  /** The type that is wanted, in its last revision; null until it is there. */
  readonly view: TypeView | null;
  /** What kept the library from being read. */
  readonly fault: string | null;
}

const NO_TYPES: readonly TypeSummary[] = [];

/** The types of the library to choose from, and the one that is chosen. @param wanted its id; empty for none */
export function useLibrary(wanted: string): Library {
  const { data, error: listFault } = api.useListTypesQuery(
    { most: MOST_TYPES_AT_ONCE },
    { refetchOnMountOrArgChange: true },
  );
  const types = data?.types ?? NO_TYPES;
  const { currentData: view = null, error } = api.useGetTypeQuery(wanted === '' ? skipToken : { id: wanted }, {
    refetchOnMountOrArgChange: true,
  });
  const fault = error ?? listFault;
  return { types, view, fault: fault ? refusalInWords(fault) : null };
}
