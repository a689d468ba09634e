import type { Unit } from '../measure/unit.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { type FastenerPlace, PLACE_TABLE, type Torque } from './fastener.js';
import { type PassTarget, passTargets, passText } from './tightening.js';

/** One pass over fasteners, to be ticked off. */
export interface TightenPass {
  /** What it is kept under: the place, the rod where it is one, and which of its passes. */
  readonly key: string;
  readonly family: Family;
  readonly place: FastenerPlace;
  /** Number of the rod whose bolts it goes over; null for the mains, whose caps are all done in one pass. */
  readonly rod: number | null;
  readonly fastener: Torque;
  /** Which of its fastener's passes, 1 first, and of how many. */
  readonly at: number;
  readonly of: number;
  readonly target: PassTarget;
}

/** Side bolts come last, whatever else there is. */
const LAST: FastenerPlace = 'main-side';

/**
 * The passes of an engine in the order of the work: the mains stage by stage, inner bolts before outer, bolts from the side last; then rod by
 * rod. Fasteners of which only words are known have none. Common practice.
 *
 * @param fasteners in any order; of several for one place each has its own passes
 * @param rods numbers of the rods that are fitted
 */
export function tightenPasses(fasteners: readonly Torque[], rods: readonly number[]): TightenPass[] {
  const own = fasteners.flatMap((fastener, which) => {
    const { family } = PLACE_TABLE[fastener.place];
    if (family === null || fastener.tightening === null) return [];
    const targets = passTargets(fastener.tightening);
    // Two lines of one place are told apart by which of them it is.
    const twin = fasteners.slice(0, which).filter(({ place }) => place === fastener.place).length;
    const name = twin === 0 ? fastener.place : `${fastener.place}+${twin}`;
    return targets.map((target, at) => ({
      name,
      pass: { family, place: fastener.place, fastener, at: at + 1, of: targets.length, target },
    }));
  });
  const stageOf = ({ pass: { at, place } }: (typeof own)[number]) => (place === LAST ? 100 + at : at);
  const placeOf = ({ pass: { place } }: (typeof own)[number]) => (place === 'main-outer' ? 1 : 0);
  const mains = own
    .filter(({ pass: { family } }) => family !== null && !FAMILY_TABLE[family].housingsMove)
    .sort((one, other) => stageOf(one) - stageOf(other) || placeOf(one) - placeOf(other))
    .map(({ name, pass }): TightenPass => ({ key: `${name}/${pass.at}`, rod: null, ...pass }));
  const ofRods = rods.flatMap((rod) =>
    own
      .filter(({ pass: { family } }) => family !== null && FAMILY_TABLE[family].housingsMove)
      .map(({ name, pass }): TightenPass => ({ key: `${name} ${rod}/${pass.at}`, rod, ...pass })),
  );
  return [...mains, ...ofRods];
}

/** A pass that was ticked off: what it went to, by whom, when. */
export interface DonePass {
  readonly target: string;
  readonly by: string;
  readonly at: string;
}

/** How a pass stands. */
export interface PassState {
  readonly pass: TightenPass;
  /** What it goes to, in words. */
  readonly text: string;
  readonly done: DonePass | null;
  /** What is wrong with it: done to another figure than is asked for now; done before one that comes before it; passed over. */
  readonly doubt: 'other-figure' | 'out-of-order' | 'skipped' | null;
}

/**
 * How each pass stands. A pass that was passed over while a later one of its fasteners was done is `skipped`; one that was done before an
 * earlier one of them `out-of-order`; one done to a figure that the data has no more `other-figure`. The mains are one sequence, each rod
 * is one of its own.
 *
 * @param passes in the order of the work
 * @param done by the keys of the passes
 * @param unit unit that stretches are told in
 */
export function passStates(
  passes: readonly TightenPass[],
  done: Readonly<Record<string, DonePass>>,
  unit: Unit,
): PassState[] {
  const sequence = ({ rod }: TightenPass) => rod ?? 0;
  return passes.map((pass, at) => {
    const text = passText(pass.target, unit);
    const own = done[pass.key] ?? null;
    const others = passes
      .map((other, place) => ({ other, place }))
      .filter(({ other }) => sequence(other) === sequence(pass));
    const isLaterDone = others.some(({ other, place }) => place > at && done[other.key]);
    const isBeforeEarlier =
      own !== null &&
      others.some(({ other, place }) => place < at && done[other.key] !== undefined && done[other.key]!.at > own.at);
    const doubt =
      own === null
        ? isLaterDone
          ? 'skipped'
          : null
        : own.target !== text
          ? 'other-figure'
          : isBeforeEarlier
            ? 'out-of-order'
            : null;
    return { pass, text, done: own, doubt };
  });
}
