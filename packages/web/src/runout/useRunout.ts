import {
  type JobDocument,
  type Nanometres,
  parseLength,
  type RunoutAt,
  runoutsOf,
  type Turn,
  typedLength,
} from '@fettle/core';
import { useSearchParams } from 'react-router';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

export const FLANGE = 'flange';

export interface RunoutWork {
  readonly document: JobDocument;
  /** Where the dial may stand: the mains between the outer two, and the flange. */
  readonly places: readonly string[];
  readonly place: string;
  readonly show: (place: string) => void;
  readonly angles: readonly number[];
  readonly turn: Turn;
  readonly read: RunoutAt | null;
  readonly all: readonly RunoutAt[];
  /** Keeps what the dial showed at an angle; an empty text takes it back. @returns the length, null where it is none */
  readonly put: (angle: number, text: string) => Nanometres | null;
  readonly set: (part: Partial<Pick<JobDocument['runout'], 'steps' | 'startTooth'>>) => void;
}

/** The runout of a shaft: where the dial stands, what it showed round the turn, and what that says. */
export function useRunout(job: OpenJob): RunoutWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const [search, setSearch] = useSearchParams();
  const { document } = job;
  const { runout, unit, layout } = document;
  const inner = Array.from({ length: Math.max(0, layout.mains - 2) }, (_, at) => `M${at + 2}`);
  const places = [...inner, FLANGE];
  const asked = search.get('at');
  const place =
    asked !== null && places.includes(asked) ? asked : (places[Math.floor((inner.length - 1) / 2)] ?? FLANGE);
  const turn = place === FLANGE ? runout.flange : (runout.mains[place] ?? {});
  const all = runoutsOf(document);
  return {
    document,
    places,
    place,
    show: (at) => setSearch({ at }, { replace: true }),
    angles: Array.from({ length: runout.steps }, (_, at) => (at * 360) / runout.steps),
    turn,
    read: all.find((one) => one.place === place) ?? null,
    all,
    put: (angle, text) => {
      const parsed = parseLength(text, { unit, signed: 'sign' });
      const reading = typedLength(text, unit, parsed.ok ? parsed.nm : null, { by, at: new Date().toISOString() });
      change(
        (old) => {
          const before = place === FLANGE ? old.runout.flange : (old.runout.mains[place] ?? {});
          const { [String(angle)]: _, ...others } = before;
          const after = text.trim() === '' ? others : { ...others, [String(angle)]: reading };
          const changed =
            place === FLANGE
              ? { ...old.runout, flange: after }
              : { ...old.runout, mains: { ...old.runout.mains, [place]: after } };
          return { ...old, runout: changed };
        },
        `runout at ${place === FLANGE ? 'the flange' : place}, ${angle}°`,
      );
      return reading.nm;
    },
    set: (part) => change((old) => ({ ...old, runout: { ...old.runout, ...part } })),
  };
}
