import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Joint } from './crushSchema.js';
import type { JointKind } from './crushSettings.js';

export type Limits = { readonly low: Nanometres; readonly high: Nanometres };

/** What the feelers of both sides say of a joint. */
export interface CrushRead {
  readonly left: { readonly go: Nanometres; readonly noGo: Nanometres };
  readonly right: { readonly go: Nanometres; readonly noGo: Nanometres };
  /** What both sides could have: from the larger go to the smaller no-go; null where they share nothing. */
  readonly shared: { readonly low: Nanometres; readonly high: Nanometres } | null;
}

type Side = Joint['left'];

/**
 * How far a joint opens at one side: what the feelers say at one face of the shim, plus what they say at the other where it was not pressed to
 * that face. Null while something is missing. Shells without shims have one face: what was read at another one, while the joint had shims, is kept
 * and does not count.
 *
 * @example sideOpening({ go: 40_000, noGo: 50_000, otherGo: 30_000, otherNoGo: 40_000, shim: 300_000 }, 'split-line') // { go: 70_000, noGo: 90_000 }
 */
export function sideOpening(
  { go, noGo, otherGo, otherNoGo }: Side,
  kind: JointKind,
): { go: Nanometres; noGo: Nanometres } | null {
  if (go === null || noGo === null) return null;
  const [second, secondNot] = kind === 'split-line' ? [otherGo ?? null, otherNoGo ?? null] : [null, null];
  if (second === null && secondNot === null) return { go, noGo };
  if (second === null || secondNot === null) return null;
  return { go: nanometres(go + second), noGo: nanometres(noGo + secondNot) };
}

/** The crush of a joint as its feelers went in; null while they have not all been entered. */
export function crushRead(joint: Pick<Joint, 'left' | 'right'>, kind: JointKind): CrushRead | null {
  const [left, right] = [sideOpening(joint.left, kind), sideOpening(joint.right, kind)];
  if (!left || !right) return null;
  const low = nanometres(Math.max(left.go, right.go));
  const high = nanometres(Math.min(left.noGo, right.noGo));
  return { left, right, shared: low <= high ? { low, high } : null };
}

/** How a joint stands to its limits; null where nothing was read, or no limits are given. */
export function jointState(
  joint: Joint,
  kind: JointKind,
  limits: Limits | null,
): 'inside' | 'tight' | 'loose' | 'not-square' | null {
  if (limits === null) return null;
  if (kind === 'saddle') {
    if (joint.clearance === null) return null;
    return joint.clearance < limits.low ? 'tight' : joint.clearance > limits.high ? 'loose' : 'inside';
  }
  const read = crushRead(joint, kind);
  if (!read) return null;
  if (!read.shared) return 'not-square';
  const low = Math.min(read.left.go, read.right.go);
  const high = Math.max(read.left.noGo, read.right.noGo);
  // Little crush is a loose shell, much of it a tight one.
  return low < limits.low ? 'loose' : high > limits.high ? 'tight' : 'inside';
}
