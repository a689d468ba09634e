import type { ThrustKind } from '../engineType/thrustKind.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { endPlayAim } from './endPlayAim.js';
import { endPlayNow, endPlayRound, limitsForMean } from './endPlayRounds.js';
import type { EndPlay } from './endPlaySchema.js';

/** One pass over the plate: how much comes off each face, and what should be read afterwards. */
export interface DressingPass {
  readonly perFace: Nanometres;
  readonly expected: Nanometres;
}

/**
 * What can be done about an end play that is outside its limits, in the order in which a fitter tries it.
 *
 * * `seat`: snug the thrust cap, knock the shaft both ways to line the halves up, torque again, read again
 * * `pieces`: other washers, rings or flanged halves
 * * `dress`: take the faces down on a flat plate, the same from each, measuring often
 * * `stop`: a worn shaft face, more than dressing gives, or angles of the shaft further apart than the limits: repair or machining
 */
export type EndPlayStep =
  | { readonly kind: 'seat' }
  | { readonly kind: 'pieces'; readonly way: 'thinner' | 'thicker' }
  | {
      readonly kind: 'dress';
      readonly total: Nanometres;
      readonly passes: readonly DressingPass[];
      /** True if it is known that the faces carry no coating. */
      readonly isUncoated: boolean;
    }
  | { readonly kind: 'stop'; readonly why: 'worn-face' | 'machining' | 'uneven' };

/** The finest pass that is worth a plate: 0.005 mm or 0.0002 in off each face. Common practice. */
const FINEST: Readonly<Record<Unit, number>> = { mm: 5_000, in: 5_080 };

/**
 * Passes over the plate that take so much off in all, half of what is left each time, the same from each of two faces: coarse while
 * there is room, fine at the end, with a reading after each. Common practice.
 *
 * @param from what is read now
 * @param to what is to be read at the end; above `from`
 * @example dressingPasses(50_000, 90_000, 'mm') // [{ perFace: 10_000, expected: 70_000 }, { perFace: 5_000, expected: 80_000 }, { perFace: 5_000, expected: 90_000 }]
 */
export function dressingPasses(from: Nanometres, to: Nanometres, unit: Unit): DressingPass[] {
  const passes: DressingPass[] = [];
  const finest = FINEST[unit];
  let expected: number = from;
  while (expected < to) {
    const left = to - expected;
    // In whole finest steps off each face, so that it can be measured; the last pass takes what is left.
    const steps = Math.max(1, Math.floor(left / 4 / finest));
    const off = left < 4 * finest && left - 2 * finest < finest / 2 ? left : Math.min(left, 2 * steps * finest);
    expected += off;
    passes.push({ perFace: nanometres(Math.round(off / 2)), expected: nanometres(expected) });
  }
  return passes;
}

/**
 * What to do about the end play as it was read last, in the order of the work; empty when it is inside its limits.
 *
 * @param hasPlan whether the pieces on hand have a choice that brings it inside
 */
export function endPlaySteps(
  endPlay: EndPlay,
  kind: ThrustKind,
  limit: { readonly low: Nanometres; readonly high: Nanometres },
  unit: Unit,
  hasPlan: boolean,
): EndPlayStep[] {
  const now = endPlayNow(endPlay);
  if (!now || (kind === 'rings' && now.moment === 'without')) return [];
  const isTight = now.smallest < limit.low;
  if (!isTight && now.largest <= limit.high) return [];
  const steps: EndPlayStep[] = [];
  const open = limitsForMean(now, limit);
  const isSeated = endPlayRound(endPlay, 'seated') !== null;
  if (isTight && kind !== 'rings' && !isSeated) steps.push({ kind: 'seat' });
  if (open === null) return [...steps, { kind: 'stop', why: 'uneven' }];
  if (hasPlan) steps.push({ kind: 'pieces', way: isTight ? 'thinner' : 'thicker' });
  if (isTight && kind !== 'rings' && endPlay.coating !== 'coated') {
    const aim = nanometres(Math.min(open.high, Math.max(open.low, endPlayAim(endPlay, limit))));
    const total = nanometres(aim - now.mean);
    const passes = dressingPasses(now.mean, aim, unit);
    steps.push({ kind: 'dress', total, passes, isUncoated: endPlay.coating === 'none' });
  }
  if (!hasPlan) steps.push({ kind: 'stop', why: isTight ? 'machining' : 'worn-face' });
  return steps;
}
