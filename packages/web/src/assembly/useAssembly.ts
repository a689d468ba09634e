import {
  type Assembly,
  type Built,
  type Check,
  type HandTurn,
  type JobDocument,
  jobAssembly,
  jobFacts,
  type StationAssembly,
  type StationCheck,
  type Swap,
  swapText,
  withSwap,
} from '@fettle/core';
import { useMemo } from 'react';
import { newId } from '../base/newId.js';
import { useQuery } from '../base/useQuery.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

/** What somebody says of a check. */
export type Said = Partial<Pick<Check, 'state' | 'words' | 'photo'>>;

export interface AssemblyWork {
  readonly job: OpenJob;
  readonly document: JobDocument;
  readonly stations: readonly StationAssembly[];
  /** The station that is put together now: the one that was touched, else the first with something open. */
  readonly station: StationAssembly;
  readonly show: (station: string) => void;
  /** Says that checks of a station were made; null takes them back. */
  readonly say: (checks: readonly StationCheck[], said: Said | null) => void;
  readonly decide: (check: StationCheck, words: string) => void;
  readonly turn: (station: string, turned: Pick<HandTurn, 'how' | 'angle' | 'breakaway'> | null) => void;
  readonly swap: (swap: Pick<Swap, 'part' | 'one' | 'other' | 'reason'>) => void;
  readonly setBuilt: (part: Partial<Built>) => void;
  readonly setFace: (part: Partial<Assembly['face']>) => void;
}

/** Everything that is open at a station. */
export function openAt({ before, after, isTurnOpen }: StationAssembly): number {
  return [...before, ...after].filter(({ isOpen }) => isOpen).length + (isTurnOpen ? 1 : 0);
}

/** Putting an engine together: which station is in hand, its checks, and what is said of them. */
export function useAssembly(job: OpenJob): AssemblyWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const [asked, show] = useQuery('station');
  const { document, readings } = job;
  const stations = useMemo(() => jobAssembly(document, jobFacts(document, readings).stations), [document, readings]);
  const stamp = () => ({ by, at: new Date().toISOString() });
  const set = (part: (old: Assembly) => Partial<Assembly>, what: string) =>
    change((old) => ({ ...old, assembly: { ...old.assembly, ...part(old.assembly) } }), what);
  return {
    job,
    document,
    stations,
    station:
      stations.find(({ station }) => station === asked) ?? stations.find((one) => openAt(one) > 0) ?? stations[0]!,
    show,
    say: (these, said) => {
      const [first] = these;
      if (!first) return;
      const what =
        these.length === 1
          ? `${first.what.toLowerCase()}, ${first.station}`
          : `${these.length} checks at ${first.station}`;
      set(
        ({ checks }) => {
          const after = { ...checks };
          for (const { place, isOutdated } of these) {
            const { [place]: before } = after;
            delete after[place];
            if (said === null) continue;
            const blank = { state: 'done' as const, words: '', photo: null, decision: null };
            // Parts that changed places since make it another check.
            const known = isOutdated ? blank : (before ?? blank);
            after[place] = { ...known, ...said, ...stamp() };
          }
          return { checks: after };
        },
        `${said === null ? 'check undone' : 'checked'}: ${what}`,
      );
    },
    decide: (check, words) =>
      set(({ checks }) => {
        const known = checks[check.place];
        if (!known) return {};
        const decision = words === '' ? null : { words, ...stamp() };
        return { checks: { ...checks, [check.place]: { ...known, decision } } };
      }, `decision at ${check.station}`),
    turn: (station, turned) =>
      set(({ turns }) => {
        const { [station]: _, ...others } = turns;
        return { turns: turned === null ? others : { ...others, [station]: { ...turned, ...stamp() } } };
      }, `how the shaft turns with ${station}`),
    swap: (swap) =>
      change((old) => withSwap(old, readings, newId(), { ...swap, ...stamp() }), `swapped: ${swapText(swap)}`),
    setBuilt: (part) => set(({ built }) => ({ built: { ...built, ...part } }), 'what the engine has'),
    setFace: (part) => set(({ face }) => ({ face: { ...face, ...part } }), 'lubricant of the running faces'),
  };
}
