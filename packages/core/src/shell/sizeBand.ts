import { type Nanometres, nanometres } from '../measure/nanometres.js';

/** A closed interval of sizes, nm: what a part was sorted into at manufacture, or what a wall may be. */
export interface SizeBand {
  readonly low: Nanometres;
  readonly high: Nanometres;
}

/** A band with the mark that stands for it. */
export interface MarkedBand extends SizeBand {
  readonly mark: string;
}

/** Two bands that leave sizes out between them, or claim the same ones. */
export interface BandFault {
  readonly kind: 'gap' | 'overlap';
  /** The marks of the smaller and of the larger band. */
  readonly between: readonly [string, string];
  /** How wide the gap or the overlap is, nm. */
  readonly by: Nanometres;
}

/**
 * Gaps and overlaps between bands, from the smallest sizes up. Bands that touch in one size are neighbours; so are bands written
 * a step of the last digit apart, as books do.
 *
 * @param step the last digit that the book gives, nm
 */
export function bandFaults(bands: readonly MarkedBand[], step: Nanometres): BandFault[] {
  const sorted = [...bands].sort((a, b) => a.low - b.low || a.high - b.high);
  return sorted.slice(1).flatMap((band, at): BandFault[] => {
    const before = sorted.slice(0, at + 1);
    const overlaps = before
      // Bands of one size alone share it without a width.
      .filter((one) => band.low < one.high || (band.low === one.low && band.high === one.high))
      .map((one): BandFault => {
        const by = nanometres(Math.min(one.high, band.high) - band.low);
        return { kind: 'overlap', between: [one.mark, band.mark], by };
      });
    // What reaches furthest of all before it decides whether sizes are left out.
    const furthest = before.reduce((most, one) => (one.high > most.high ? one : most));
    const gap = band.low - furthest.high;
    const gaps: BandFault[] =
      gap > step ? [{ kind: 'gap', between: [furthest.mark, band.mark], by: nanometres(gap) }] : [];
    return [...overlaps, ...gaps];
  });
}

/** The marks whose band holds a size: one, none in a gap, several where bands touch or overlap. */
export function marksOf(bands: readonly MarkedBand[], size: Nanometres): string[] {
  return bands.filter(({ low, high }) => size >= low && size <= high).map(({ mark }) => mark);
}

/** The clearance that bands imply, nm: every value between the two is possible and none beyond. */
export interface ClearanceInterval {
  readonly tightest: Nanometres;
  readonly loosest: Nanometres;
}

/**
 * `bore − journal − upper wall − lower wall` over bands, exact: tightest with the smallest bore and everything else largest,
 * loosest the other way round (interval arithmetic; Moore 1966, cited from memory).
 *
 * @example clearanceOfBands({ low: 64000000, high: 64006000 }, { low: 59980000, high: 59986000 }, { low: 1990000, high: 1993000 }, { low: 1990000, high: 1993000 }).tightest // 28000
 */
export function clearanceOfBands(
  bore: SizeBand,
  journal: SizeBand,
  upper: SizeBand,
  lower: SizeBand,
): ClearanceInterval {
  return {
    tightest: nanometres(bore.low - journal.high - upper.high - lower.high),
    loosest: nanometres(bore.high - journal.low - upper.low - lower.low),
  };
}

/** A size that does not lie in the band of its mark. */
export interface MarkDisagreement {
  readonly side: 'under' | 'over';
  /** How far outside the band, nm, above zero. */
  readonly by: Nanometres;
  /** Marks whose band holds the size: what the part would be marked today. */
  readonly fits: readonly string[];
  /** What may be behind it, the likeliest first; common practice. */
  readonly reasons: readonly ('worn' | 'polished' | 'reground' | 'machined' | 'misread-mark' | 'swapped-part')[];
}

/**
 * Compares a measured size with the band of its mark. The measured size decides; this only tells that they disagree.
 *
 * @param part a journal loses metal in use, a bore gains size
 * @param uncertainty of the reading, nm: within it there is nothing to tell
 * @returns null when they agree
 */
export function markDisagreement(
  part: 'bore' | 'journal',
  size: Nanometres,
  mark: string,
  bands: readonly MarkedBand[],
  uncertainty: Nanometres,
): MarkDisagreement | null {
  const band = bands.find((one) => one.mark === mark);
  if (!band) return null;
  const under = band.low - size;
  const over = size - band.high;
  if (Math.max(under, over) <= uncertainty) return null;
  const side = under > 0 ? 'under' : 'over';
  const isWear = part === 'journal' ? side === 'under' : side === 'over';
  const worn = part === 'journal' ? (['worn', 'polished', 'reground'] as const) : (['worn', 'machined'] as const);
  return {
    side,
    by: nanometres(Math.max(under, over)),
    fits: marksOf(bands, size),
    reasons: isWear ? [...worn, 'swapped-part', 'misread-mark'] : ['misread-mark', 'swapped-part'],
  };
}
