import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { type MarkedBand, marksOf } from '../measure/sizeBand.js';

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
