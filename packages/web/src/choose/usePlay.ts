import { type Change, changesBetween, type JobDocument, NO_WISHES, type StationWishes } from '@fettle/core';
import { useState } from 'react';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { asJson, withoutStep } from './withoutStep.js';

/** One step of playing. */
interface Step {
  /** What the step changed: what it put, and what stood there before. */
  readonly changes: readonly Change[];
  /** What it did, to say what undoing takes back. */
  readonly what: string;
}

function isEmpty(wish: StationWishes): boolean {
  return wish.upper === null && wish.lower === null && wish.noShells.length === 0 && !wish.unmixed;
}

/** Steps of playing with the plan, each of which can be undone. */
export interface Play {
  wishAt(station: string): StationWishes;
  wish(station: string, change: Partial<StationWishes>, what: string): void;
  /** Keeps a rod on a pin; whatever rod was kept there goes free. Null lets the rod go. */
  keepRod(rod: number, pin: number | null): void;
  setExtra(station: string, extra: JobDocument['rules']['extras'][string] | null): void;
  /** Halves that were got: they are in the drawer now. */
  bought(halves: readonly { shell: string; count: number }[]): void;
  releaseAll(): void;
  readonly undo: (() => void) | null;
  readonly lastStep: string | null;
  /** Whether the last undo left something as it is, because it was changed again since. */
  readonly isPartial: boolean;
}

export function usePlay(job: OpenJob): Play {
  const change = useChangeDocument(job);
  const [steps, setSteps] = useState<readonly Step[]>([]);
  const [isPartial, setPartial] = useState(false);
  const { wishes } = job.document;
  const step = (what: string, next: (document: JobDocument) => JobDocument) => {
    const changes = changesBetween(asJson(job.document), asJson(next(job.document)));
    setPartial(false);
    setSteps((old) => [...old, { changes, what }]);
    change(next);
  };
  const last = steps.at(-1);
  return {
    wishAt: (station) => wishes[station] ?? NO_WISHES,
    wish: (station, part, what) =>
      step(what, (old) => {
        const { [station]: before = NO_WISHES, ...others } = old.wishes;
        const wish = { ...before, ...part };
        return { ...old, wishes: isEmpty(wish) ? others : { ...others, [station]: wish } };
      }),
    keepRod: (rod, pin) =>
      step(pin === null ? `R${rod} let go` : `R${rod} kept on P${pin}`, (old) => {
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
      step(`aim at ${station}`, (old) => {
        const { [station]: _, ...others } = old.rules.extras;
        return { ...old, rules: { ...old.rules, extras: extra === null ? others : { ...others, [station]: extra } } };
      }),
    bought: (halves) =>
      step('halves put in the drawer', (old) => ({
        ...old,
        shells: {
          ...old.shells,
          ...Object.fromEntries(
            halves.flatMap(({ shell, count }) => {
              const known = old.shells[shell];
              return known && known.stock !== null ? [[shell, { ...known, stock: known.stock + count }] as const] : [];
            }),
          ),
        },
      })),
    releaseAll: () =>
      step('everything let go', (old) => ({
        ...old,
        wishes: {},
        rods: Object.fromEntries(Object.entries(old.rods).map(([number, rod]) => [number, { ...rod, pin: null }])),
      })),
    undo: last
      ? () => {
          setSteps((old) => old.slice(0, -1));
          setPartial(withoutStep(job.document, last.changes).isPartial);
          change((old) => withoutStep(old, last.changes).document);
        }
      : null,
    lastStep: last?.what ?? null,
    isPartial,
  };
}

/** What is held and forbidden, in words. */
export function wishesInWords({ wishes, rods, shells }: JobDocument): string[] {
  const grade = (id: string) => (shells[id] ? `${shells[id].grade} ${shells[id].half}` : id);
  return [
    ...Object.entries(wishes).map(([station, { upper, lower, noShells, unmixed }]) => {
      const held = [upper, lower].flatMap((id) => (id === null ? [] : [grade(id)]));
      const parts = [
        ...(held.length > 0 ? [`holds ${held.join(' and ')}`] : []),
        ...noShells.map((id) => `not ${grade(id)}`),
        ...(unmixed ? ['no mixed walls'] : []),
      ];
      return `${station} ${parts.join(', ')}`;
    }),
    ...Object.entries(rods).flatMap(([rod, { pin }]) => (pin === null ? [] : [`R${rod} stays on P${pin}`])),
  ];
}
