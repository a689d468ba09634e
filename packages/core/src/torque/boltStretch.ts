import type { Nanometres } from '../measure/nanometres.js';
import type { Bolt } from './bolt.js';

/** A bolt whose stretch was read against a gauge that was zeroed on it. */
export interface StretchedBolt extends Bolt {
  readonly stretch: Nanometres;
}

export interface StretchFinding extends StretchedBolt {
  /** Under or over its limits; or inside of them and yet more than its neighbours. */
  readonly kind: 'under' | 'over' | 'more-than-neighbours';
  /** By how much, nm: outside its limit, or above the middle of the others. */
  readonly by: Nanometres;
}

/** Share of the width of the limits that a bolt may stretch more than its neighbours before it is named. No source: a setting of ours. */
const MOST_ABOVE = 0.5;

function middleOf(values: readonly number[]): number {
  const sorted = [...values].sort((one, other) => one - other);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * Bolts whose stretch is outside its limits, and those that stretched more than their neighbours: more than half the width of the limits
 * above the median of the others, a bolt that gives way or is another kind. With fewer than two others nothing is compared.
 *
 * @param limits of the data sheet, nm
 * @returns in the order that the bolts are given
 */
export function stretchFindings(
  bolts: readonly StretchedBolt[],
  { low, high }: { readonly low: Nanometres; readonly high: Nanometres },
): StretchFinding[] {
  return bolts.flatMap((bolt): StretchFinding[] => {
    const { stretch } = bolt;
    const by = (value: number) => Math.round(value) as Nanometres;
    if (stretch < low) return [{ ...bolt, kind: 'under', by: by(low - stretch) }];
    if (stretch > high) return [{ ...bolt, kind: 'over', by: by(stretch - high) }];
    const others = bolts.filter((other) => other.id !== bolt.id).map((other) => other.stretch as number);
    if (others.length < 2) return [];
    const above = stretch - middleOf(others);
    return above > MOST_ABOVE * (high - low) ? [{ ...bolt, kind: 'more-than-neighbours', by: by(above) }] : [];
  });
}
