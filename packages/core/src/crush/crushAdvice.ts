import { dressingPasses } from '../endPlay/endPlayAdvice.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { crushRead, jointState, type Limits } from './crushRead.js';
import type { Joint } from './crushSchema.js';
import type { JointKind } from './crushSettings.js';

/** One pass of dressing: how much comes off the shim at each side, and what crush should be read afterwards. */
export interface CrushPass {
  readonly perSide: Nanometres;
  readonly expected: Nanometres;
}

/** What brings the crush of a joint to its target. */
export type CrushAdvice =
  /** Too much crush: so much comes off the two shims together, half from each, a pass at a time with a reading after each. */
  | { readonly kind: 'dress'; readonly total: Nanometres; readonly passes: readonly CrushPass[] }
  /** Too much crush, and the shims are thinner than what would come off: other shells. */
  | { readonly kind: 'beyond-shims'; readonly total: Nanometres }
  /** Too little crush: shims so much thicker in all, half at each side. */
  | { readonly kind: 'thicker'; readonly total: Nanometres }
  /** Shells without shims: what to look for, and no file without the engine maker's word. */
  | { readonly kind: 'shells'; readonly way: 'too-much' | 'too-little'; readonly total: Nanometres };

/**
 * What to do about a crush outside its limits. Shims thicker by x in all raise the crush by x, dressed ones lower it; the middle of what both
 * sides share is brought to the target. Common practice.
 *
 * @param aim the crush aimed at; null, or outside the limits: their middle
 * @returns null where nothing was read, the joint is not square, or its crush is in limits
 */
export function crushAdvice(
  joint: Joint,
  kind: Exclude<JointKind, 'saddle'>,
  limits: Limits,
  aim: Nanometres | null,
  unit: Unit,
): CrushAdvice | null {
  const state = jointState(joint, kind, limits);
  const shared = crushRead(joint, kind)?.shared;
  if (!shared || (state !== 'tight' && state !== 'loose')) return null;
  const wanted = aim !== null && aim >= limits.low && aim <= limits.high ? aim : (limits.low + limits.high) / 2;
  const now = (shared.low + shared.high) / 2;
  const total = nanometres(Math.round(Math.abs(now - wanted)));
  if (kind === 'plain') return { kind: 'shells', way: state === 'tight' ? 'too-much' : 'too-little', total };
  if (state === 'loose') return { kind: 'thicker', total };
  const { left, right } = joint;
  const thinnest = Math.min(left.shim ?? Number.POSITIVE_INFINITY, right.shim ?? Number.POSITIVE_INFINITY);
  if (thinnest <= total / 2) return { kind: 'beyond-shims', total };
  const passes = dressingPasses(nanometres(0), total, unit).map(({ perFace, expected }) => ({
    perSide: perFace,
    expected: nanometres(Math.round(now - expected)),
  }));
  return { kind: 'dress', total, passes };
}
