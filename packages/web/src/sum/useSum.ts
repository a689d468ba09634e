import {
  type JobDocument,
  type Nanometres,
  newJob,
  parseLength,
  type QuickSum,
  quickSum,
  type Unit,
  usualLayout,
} from '@fettle/core';
import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { newId } from '../base/newId.js';
import { useAppDispatch } from '../base/store.js';
import { useSetQuery } from '../base/useQuery.js';
import { useSettled } from '../base/useSettled.js';
import { useBy } from '../person/useBy.js';
import { parcelAdded } from '../saving/savingSlice.js';

/** The figures of a quick sum, as they stand in its address. */
export const SUM_FIELDS = ['bore', 'journal', 'gauge', 'upper', 'lower', 'low', 'high', 'aim', 'step'] as const;
export type SumField = (typeof SUM_FIELDS)[number];

/** How long after the last key the address follows, ms. */
const FOLLOWS_MS = 150;

/** What limits have for a source that somebody typed on a scrap of paper. */
const SOURCE = 'typed for a quick sum';

export interface Sum {
  readonly unit: Unit;
  readonly setUnit: (unit: Unit) => void;
  readonly texts: Readonly<Record<SumField, string>>;
  readonly set: (field: SumField, text: string) => void;
  /** Both limits at once, as from a range that was pasted. */
  readonly setRange: (low: string, high: string) => void;
  readonly faults: Readonly<Partial<Record<SumField, string>>>;
  readonly sizes: Readonly<Record<SumField, Nanometres | null>>;
  readonly sum: QuickSum;
  readonly clear: () => void;
  /** Puts it on the bench as an engine of one main; null while there are no sizes to keep. */
  readonly keep: ((name: string) => void) | null;
}

function documentOf(name: string, unit: Unit, sizes: Sum['sizes']): JobDocument {
  const usual = usualLayout(1, 1, 1, null);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob(name, unit, usual.layout, { block: 'unknown', caps: 'unknown', rods: 'unknown' });
  const { low, high, upper, lower, aim } = sizes;
  const half = (side: 'upper' | 'lower', wall: Nanometres) =>
    ({ family: 'main', series: 'not named', grade: 'as typed', half: side, wall, stock: 1, line: null }) as const;
  return {
    ...job,
    limits: {
      ...job.limits,
      mainClearance: low !== null && high !== null && low <= high ? { low, high, source: SOURCE } : null,
    },
    measuring: { ...job.measuring, slots: { ...job.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] } },
    rules: { ...job.rules, aim: aim === null ? job.rules.aim : { kind: 'figure', clearance: aim } },
    shells: {
      ...(upper === null ? {} : { [newId()]: half('upper', upper) }),
      ...(lower === null ? {} : { [newId()]: half('lower', lower) }),
    },
  };
}

/** One station without an engine: its figures are its address, so that it can be sent and found again. */
export function useSum(): Sum {
  const [query] = useSearchParams();
  const setQuery = useSetQuery(true);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const by = useBy();
  const unit: Unit = query.get('unit') === 'in' ? 'in' : 'mm';
  // What is typed stands in its box at once; the address follows.
  const [texts, setTexts] = useState(
    () => Object.fromEntries(SUM_FIELDS.map((field) => [field, query.get(field) ?? ''])) as Sum['texts'],
  );
  const settled = useSettled(texts, FOLLOWS_MS);
  useEffect(() => {
    setQuery(Object.fromEntries(Object.entries(settled).map(([field, text]) => [field, text === '' ? null : text])));
  }, [settled, setQuery]);
  const faults: Partial<Record<SumField, string>> = {};
  const sizes = Object.fromEntries(
    SUM_FIELDS.map((field) => {
      const text = texts[field];
      if (text.trim() === '') return [field, null];
      const read = parseLength(text, { unit, signed: 'sign' });
      const mayBeNone = field === 'gauge' || field === 'low' || field === 'aim';
      const fault = !read.ok ? read.message : read.nm <= 0 && !mayBeNone ? 'Above zero.' : null;
      if (fault !== null) faults[field] = fault;
      return [field, read.ok && fault === null ? read.nm : null];
    }),
  ) as Sum['sizes'];
  const { low, high, ...rest } = sizes;
  if (low !== null && high !== null && low > high) faults.high = 'Below the low limit; swap them.';
  const limits = low !== null && high !== null && low <= high ? { low, high } : null;
  const hasSizes = sizes.bore !== null && sizes.journal !== null;
  return {
    unit,
    setUnit: (next) => setQuery({ unit: next }),
    texts,
    set: (field, text) => setTexts((old) => ({ ...old, [field]: text })),
    setRange: (low, high) => setTexts((old) => ({ ...old, low, high })),
    faults,
    sizes,
    sum: quickSum({ ...rest, limits }),
    clear: () => setTexts(Object.fromEntries(SUM_FIELDS.map((field) => [field, ''])) as Sum['texts']),
    keep: hasSizes
      ? (name) => {
          const jobId = newId();
          dispatch(parcelAdded({ kind: 'create', id: newId(), jobId, by, document: documentOf(name, unit, sizes) }));
          for (const [feature, slot, field] of [
            ['mainBore', 'front', 'bore'],
            ['mainJournal', 'front-0', 'journal'],
          ] as const) {
            const draft = { feature, station: 1, slot, text: texts[field].trim(), unit, setting: null, replaces: null };
            const at = new Date().toISOString();
            dispatch(parcelAdded({ kind: 'reading', id: newId(), jobId, draft: { ...draft, by, at } }));
          }
          void navigate(`/engines/${jobId}/choose`, { state: { toNext: true } });
        }
      : null,
  };
}
