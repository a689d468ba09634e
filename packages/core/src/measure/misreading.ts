import { type Nanometres, nanometres } from './nanometres.js';
import { SLIPS, type Slip, slipsOf } from './slips.js';
import type { Unit } from './unit.js';

export interface LikelyReading {
  readonly slip: Slip;
  /** What the figure would be without the slip. */
  readonly nm: Nanometres;
  /** The question to put to the fitter. */
  readonly question: string;
}

/** Inside its limits; believable outside of them, as a worn part is; or no size that the part can have. */
export type ReadingVerdict = 'inside' | 'outside' | 'implausible';

export interface ReadingJudgement {
  readonly verdict: ReadingVerdict;
  /** How far outside the limits the figure lies; negative when under them. */
  readonly outsideBy: Nanometres;
  /** Slips that would explain it, likeliest first; none of a figure inside its limits. */
  readonly likely: readonly LikelyReading[];
}

export interface ExpectedSize {
  /** The data sheet's limits for the feature, or the span of what else was read there. */
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly unit: Unit;
  /** The size the gauge is zeroed on, where the figure was a deviation from it. */
  readonly setting?: Nanometres | null;
  /** The size the gauge is zeroed on, where the figure was no deviation. */
  readonly zeroedOn?: Nanometres | null;
  /** Digits as typed, and the nanometres that `1` there would be. */
  readonly digits?: string;
  readonly perOne?: number;
  /** What the instrument tells apart, nm: likely figures are rounded to it; left out, to a nanometre. */
  readonly resolution?: Nanometres;
}

/**
 * Wear, a reground journal and a bored-out block move a size by less than this; a figure further out cannot be right. Half a thimble
 * turn in millimetres, 0.010 in in inches. Common practice.
 */
export const BELIEVABLE_WEAR: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(250_000), in: nanometres(254_000) };
/** An explained figure must land this near to the limits to be offered: 0.05 mm, 0.002 in. */
const LANDS_WITHIN: Readonly<Record<Unit, number>> = { mm: 50_000, in: 50_800 };

/**
 * Tells whether a figure can be the size it is entered as, and which usual slips would explain it. The figure itself is never changed,
 * and one inside its limits is never doubted.
 *
 * A believable figure outside the limits is a question, never a verdict: the part may just be worn. Only slips that lead to inside the
 * limits are named for it; for one that cannot be right also those that lead near to them.
 *
 * @param read the size as typed
 * @param expected limits of the feature, lowest first
 * @example judgedReading(59_481_000, { low: 59_976_000, high: 59_994_000, unit: 'mm' }).likely[0].nm // 59981000
 */
export function judgedReading(read: Nanometres, expected: ExpectedSize): ReadingJudgement {
  const { low, high, unit } = expected;
  const outsideBy = (read < low ? read - low : read > high ? read - high : 0) as Nanometres;
  if (outsideBy === 0) return { verdict: 'inside', outsideBy, likely: [] };
  const isBelievable = Math.abs(outsideBy) <= BELIEVABLE_WEAR[unit];
  return {
    verdict: isBelievable ? 'outside' : 'implausible',
    outsideBy,
    likely: likelyOf(read, expected, isBelievable ? 0 : LANDS_WITHIN[unit]),
  };
}

/** Slips after which a figure would lie within the limits or so near to them, likeliest first; each kind of slip once a figure. */
function likelyOf(read: Nanometres, expected: ExpectedSize, near: number): LikelyReading[] {
  const { low, high, resolution = 1 } = expected;
  const middle = (low + high) / 2;
  const seen = new Set<string>();
  // Of a deviation it is the point that slips: 20 thou for 2.0 thou.
  const kinds: readonly Slip[] = expected.setting == null ? SLIPS : ['mirrored-deviation', 'decimal-slip', ...SLIPS];
  return slipsOf({ ...expected, nm: read })
    .map((found, at) => ({ ...found, at, nm: Math.round(Math.round(found.nm / resolution) * resolution) }))
    .filter(({ nm }) => nm !== read && nm >= low - near && nm <= high + near)
    .map((found) => ({ ...found, nm: nanometres(found.nm), isInside: found.nm >= low && found.nm <= high }))
    .sort(
      (a, b) =>
        Number(b.isInside) - Number(a.isInside) ||
        kinds.indexOf(a.slip) - kinds.indexOf(b.slip) ||
        Math.abs(a.nm - middle) - Math.abs(b.nm - middle) ||
        a.at - b.at,
    )
    .filter(({ slip, nm }) => !seen.has(`${slip} ${nm}`) && seen.add(`${slip} ${nm}`))
    .map(({ slip, nm, question }) => ({ slip, nm, question }));
}
