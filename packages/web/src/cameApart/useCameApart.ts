import {
  blankStation,
  type EarlierBuild,
  isStationDescribed,
  type JobDocument,
  jobFacts,
  type OldHalf,
  type OldStation,
  type PartThenNow,
  parseLength,
  type TypedLength,
  thenAndNow,
  typedLength,
} from '@fettle/core';
import { useMemo } from 'react';
import { useQuery } from '../base/useQuery.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

export type HalfSide = 'upper' | 'lower';

export interface CameApartWork {
  readonly job: OpenJob;
  readonly document: JobDocument;
  /** The stations from front to rear: mains, then pins. */
  readonly stations: readonly { readonly id: string; readonly isDescribed: boolean }[];
  /** The station that is open: the one that was touched, else the first that is not described. */
  readonly open: string;
  readonly show: (station: string) => void;
  /** What was said of the open station; null: nothing yet. */
  readonly found: OldStation | null;
  readonly set: (part: Partial<Omit<OldStation, 'by' | 'at' | HalfSide>>) => void;
  readonly setHalf: (side: HalfSide, part: Partial<OldHalf>) => void;
  /** What is kept of a length that was typed; null for an empty text. */
  readonly lengthOf: (text: string) => TypedLength | null;
  readonly setWhole: (part: Partial<Pick<JobDocument['cameApart'], 'endPlay' | 'words'>>) => void;
  readonly setSerial: (serial: string) => void;
  readonly setRun: (run: EarlierBuild['run']) => void;
  /** Parts as the build before left them, and now. */
  readonly parts: readonly PartThenNow[];
}

/** An engine as it came apart: one station open, what is said of it, and what has worn since it was built before. */
export function useCameApart(job: OpenJob): CameApartWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const [asked, show] = useQuery('station');
  const { document, readings } = job;
  const facts = useMemo(() => jobFacts(document, readings), [document, readings]);
  const stations = facts.stations.map(({ id }) => ({
    id,
    isDescribed: isStationDescribed(document.cameApart.stations[id]),
  }));
  const open =
    stations.find(({ id }) => id === asked)?.id ??
    stations.find(({ isDescribed }) => !isDescribed)?.id ??
    stations[0]!.id;
  const put = (make: (old: OldStation) => OldStation, what: string) =>
    change((old) => {
      const stamp = { by, at: new Date().toISOString() };
      const before = old.cameApart.stations[open] ?? blankStation(stamp);
      const stations = { ...old.cameApart.stations, [open]: { ...make(before), ...stamp } };
      return { ...old, cameApart: { ...old.cameApart, stations } };
    }, what);
  return {
    job,
    document,
    stations,
    open,
    show,
    found: document.cameApart.stations[open] ?? null,
    set: (part) => put((old) => ({ ...old, ...part }), `how ${open} came apart`),
    setHalf: (side, part) =>
      put((old) => ({ ...old, [side]: { ...old[side], ...part } }), `old ${side} shell, ${open}`),
    lengthOf: (text) => {
      if (text.trim() === '') return null;
      const parsed = parseLength(text, { unit: document.unit, signed: 'sign' });
      return typedLength(text, document.unit, parsed.ok && parsed.nm >= 0 ? parsed.nm : null, {
        by,
        at: new Date().toISOString(),
      });
    },
    setWhole: (part) => change((old) => ({ ...old, cameApart: { ...old.cameApart, ...part } }), 'how it came apart'),
    setSerial: (serial) => change((old) => ({ ...old, serial }), 'serial number'),
    setRun: (run) =>
      change((old) => ({ ...old, before: old.before && { ...old.before, run } }), 'what the engine ran since'),
    parts: useMemo(() => thenAndNow(facts), [facts]),
  };
}
