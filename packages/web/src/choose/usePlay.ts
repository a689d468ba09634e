import { type JobDocument, NO_WISHES, type StationWishes } from '@fettle/core';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';

function isEmpty(wish: StationWishes): boolean {
  return wish.upper === null && wish.lower === null && wish.noShells.length === 0 && !wish.unmixed;
}

/** What one tries out on the plan. */
export interface Play {
  wishAt(station: string): StationWishes;
  wish(station: string, change: Partial<StationWishes>, what: string): void;
  /** Keeps a rod on a pin; whatever rod was kept there goes free. Null lets the rod go. */
  lockRod(rod: number, pin: number | null): void;
  setExtra(station: string, extra: JobDocument['rules']['extras'][string] | null): void;
  /** Does what a remedy says. */
  remedy(change: (document: JobDocument) => JobDocument, what: string): void;
  releaseAll(): void;
}

export function usePlay(job: OpenJob): Play {
  const change = useChangeDocument(job);
  const { wishes } = job.document;
  const step = (what: string, next: (document: JobDocument) => JobDocument) => change(next, what);
  return {
    wishAt: (station) => wishes[station] ?? NO_WISHES,
    wish: (station, part, what) =>
      step(what, (old) => {
        const { [station]: before = NO_WISHES, ...others } = old.wishes;
        const wish = { ...before, ...part };
        return { ...old, wishes: isEmpty(wish) ? others : { ...others, [station]: wish } };
      }),
    lockRod: (rod, pin) =>
      step(pin === null ? `R${rod} unlocked` : `R${rod} locked on P${pin}`, (old) => {
        const freed = Object.fromEntries(
          Object.entries(old.rods).map(([number, one]) => [
            number,
            one.pin === pin && pin !== null ? { ...one, pin: null } : one,
          ]),
        );
        const before = freed[String(rod)] ?? { mark: '', pin: null };
        return { ...old, rods: { ...freed, [String(rod)]: { ...before, pin } } };
      }),
    setExtra: (station, extra) =>
      step(`target at ${station}`, (old) => {
        const { [station]: _, ...others } = old.rules.extras;
        return { ...old, rules: { ...old.rules, extras: extra === null ? others : { ...others, [station]: extra } } };
      }),
    remedy: (next, what) => step(what, next),
    releaseAll: () =>
      step('all unlocked', (old) => ({
        ...old,
        wishes: {},
        rods: Object.fromEntries(Object.entries(old.rods).map(([number, rod]) => [number, { ...rod, pin: null }])),
      })),
  };
}
