import { MOST_TYPES_AT_ONCE, sheetDifferences, type TypeRevision, type TypeView } from '@fettle/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { api } from '../wire/api.js';
import { useOpenType } from './useOpenType.js';

const NO_REVISIONS: readonly TypeRevision[] = [];
const FRESH = { refetchOnMountOrArgChange: true } as const;

/** The last revision, as the library tells it. */
function newestOf({ revision, type, updatedAt, updatedBy }: TypeView): TypeRevision {
  return { revision, type, at: updatedAt, by: updatedBy };
}

/** The revisions of the open type, a page of them at a time, and what its sheet is compared with. */
export function useComparedSheets() {
  const { id, type, view, change } = useOpenType();
  const saved = view?.revision ?? 0;
  const [other, setOther] = useState(id);
  // The revision that was picked, whichever page of them is shown.
  const [picked, setPicked] = useState<TypeRevision | null>(null);
  const [after, setAfter] = useState<string>();
  const own = api.useTypeRevisionsQuery(
    saved > 0 ? { id, ...(after === undefined ? {} : { after }) } : skipToken,
    FRESH,
  );
  const listed = api.useListTypesQuery({ most: MOST_TYPES_AT_ONCE }, FRESH);
  const compared = api.useTypeRevisionsQuery(other === id ? skipToken : { id: other }, FRESH);
  const revisions = own.currentData?.revisions ?? NO_REVISIONS;
  const theirs = other === id ? revisions : (compared.currentData?.revisions ?? NO_REVISIONS);
  const newest = other === id ? view && newestOf(view) : theirs[0];
  const from = picked ?? newest ?? null;
  /** Revisions to compare with; the one that is compared is among them whichever page is shown. */
  const offered = from && !theirs.some((one) => one.revision === from.revision) ? [from, ...theirs] : theirs;
  return {
    error: own.error ?? listed.error ?? compared.error,
    /** The revision that is in the library now; 0 before the first. */
    saved,
    change,
    revisions,
    /** The page of revisions that is shown, with whether it goes on and what came before its last. */
    page: own.currentData ?? null,
    after,
    setAfter,
    /** Types to compare with, this one first. */
    types: [
      { value: id, label: 'An earlier revision of this one' },
      ...(listed.data?.types ?? []).filter((one) => one.id !== id).map((one) => ({ value: one.id, label: one.name })),
    ],
    other,
    chooseType: (next: string) => {
      setOther(next);
      setPicked(null);
    },
    offered,
    from,
    chooseRevision: (revision: number) => setPicked(offered.find((one) => one.revision === revision) ?? null),
    differences: type && from ? sheetDifferences(from.type, type) : [],
  };
}

/** What a sheet is compared with, and its revisions. */
export type ComparedSheets = ReturnType<typeof useComparedSheets>;
