import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Limits } from './crushRead.js';
import type { Joint } from './crushSchema.js';

/** What brings the oil clearance of a white-metal joint to its aim. */
export interface SaddleAdvice {
  /** What each side is to be changed by: below zero it is taken out, above zero put in. */
  readonly eachSide: Nanometres;
  /** The shims that would then be left, below zero where there are none to take; null where the shims that are in are not known. */
  readonly left: Nanometres | null;
  readonly right: Nanometres | null;
  /** What the joint faces themselves lack after the last shim is out, the side that lacks more; 0 where shims do. */
  readonly fromFaces: Nanometres;
}

/**
 * What to take from, or put into, each side of a white-metal joint. The same thickness taken from both sides lowers the clearance in the bolt
 * direction by that; a shim has no less than nothing, and what is wanted beyond it comes off the joint faces, if their maker allows it. Common
 * practice.
 *
 * @param aim the clearance aimed at; null for the middle of the limits
 * @returns null for a joint whose clearance was not read
 */
export function saddleAdvice(
  { left, right, clearance }: Pick<Joint, 'left' | 'right' | 'clearance'>,
  limits: Limits,
  aim: Nanometres | null,
): SaddleAdvice | null {
  if (clearance === null) return null;
  const wanted = aim !== null && aim >= limits.low && aim <= limits.high ? aim : (limits.low + limits.high) / 2;
  const eachSide = nanometres(Math.round(wanted - clearance));
  const after = (shim: Nanometres | null) => (shim === null ? null : nanometres(shim + eachSide));
  const [leftAfter, rightAfter] = [after(left.shim), after(right.shim)];
  const least = Math.min(leftAfter ?? 0, rightAfter ?? 0);
  return { eachSide, left: leftAfter, right: rightAfter, fromFaces: nanometres(Math.max(0, -least)) };
}
