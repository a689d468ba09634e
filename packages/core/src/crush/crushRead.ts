import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Joint, JointKind } from './crushSchema.js';

export type Limits = { readonly low: Nanometres; readonly high: Nanometres };

/** What the feelers of both sides say of a joint. */
export interface CrushRead {
  readonly left: { readonly go: Nanometres; readonly noGo: Nanometres };
  readonly right: { readonly go: Nanometres; readonly noGo: Nanometres };
  /** What both sides could have: from the larger go to the smaller no-go; null where they share nothing. */
  readonly shared: { readonly low: Nanometres; readonly high: Nanometres } | null;
}

/** The crush of a joint as its feelers went in; null while they have not all been entered. */
export function crushRead({ left, right }: Pick<Joint, 'left' | 'right'>): CrushRead | null {
  if (left.go === null || left.noGo === null || right.go === null || right.noGo === null) return null;
  const low = nanometres(Math.max(left.go, right.go));
  const high = nanometres(Math.min(left.noGo, right.noGo));
  return {
    left: { go: left.go, noGo: left.noGo },
    right: { go: right.go, noGo: right.noGo },
    shared: low <= high ? { low, high } : null,
  };
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
  const read = crushRead(joint);
  if (!read) return null;
  if (!read.shared) return 'not-square';
  const low = Math.min(read.left.go, read.right.go);
  const high = Math.max(read.left.noGo, read.right.noGo);
  // Little crush is a loose shell, much of it a tight one.
  return low < limits.low ? 'loose' : high > limits.high ? 'tight' : 'inside';
}
