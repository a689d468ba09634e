import {
  type JobDocument,
  jobFacts,
  type LineDirection,
  type LineRead,
  linesOf,
  mainNames,
  parseLength,
  type TakenAt,
  takenAtMains,
  typedLength,
} from '@fettle/core';
import { useMemo } from 'react';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

/** What can be typed of each main: its height and side off the bar, and how far it is from the first. */
export type LineField = LineDirection | 'place';

export interface MainLineWork {
  readonly document: JobDocument;
  readonly names: readonly string[];
  readonly lines: readonly LineRead[];
  readonly taken: readonly TakenAt[];
  /** Keeps a length at a main; an empty text takes it back. */
  readonly put: (field: LineField, main: string, text: string) => void;
}

/** The line of the mains: what was read off the bar at each, and what that says. */
export function useMainLine(job: OpenJob): MainLineWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const { document, readings } = job;
  const { unit, layout } = document;
  const facts = useMemo(() => jobFacts(document, readings), [document, readings]);
  return {
    document,
    names: mainNames(layout),
    lines: useMemo(() => linesOf(document), [document]),
    taken: useMemo(() => takenAtMains(facts), [facts]),
    put: (field, main, text) => {
      const parsed = parseLength(text, { unit, signed: 'sign' });
      const reading = typedLength(text, unit, parsed.ok ? parsed.nm : null, { by, at: new Date().toISOString() });
      change((old) => {
        const { [main]: _, ...others } = old.mainLine[field];
        const after = text.trim() === '' ? others : { ...others, [main]: reading };
        return { ...old, mainLine: { ...old.mainLine, [field]: after } };
      });
    },
  };
}
