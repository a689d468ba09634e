import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import type { TypeGrade, Undersize } from '../engineType/engineType.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { ratedPairs } from './selectionTable.js';
import type { ClearanceInterval, SizeBand } from './sizeBand.js';

/**
 * The undersize that a ground journal belongs to: the one whose limits hold all its readings.
 *
 * @returns null when it is none of them
 */
export function undersizeOf(
  size: Pick<EffectiveSize, 'smallest' | 'largest'>,
  undersizes: readonly Undersize[],
): Undersize | null {
  return undersizes.find(({ journal }) => size.smallest >= journal.low && size.largest <= journal.high) ?? null;
}

/** What a worn journal could be ground to. */
export interface CleanUp {
  readonly undersize: Undersize;
  /** From the smallest reading down to the largest size that it may be ground to, nm; zero when it is that already. */
  readonly leastCut: Nanometres;
  /** What is there to take off before it is too small for this undersize, nm. */
  readonly mostCut: Nanometres;
}

/**
 * The least undersize that a journal would clean up at: grinding takes metal off, so its smallest reading must still be within reach
 * of the undersize's limits. All journals of a family are usually ground alike; the one that needs most decides.
 *
 * @param smallest smallest readings of the journals, nm
 * @returns null when no undersize of the data sheet would do: another shaft, or a repair that the maker allows
 */
export function cleanUp(smallest: readonly Nanometres[], undersizes: readonly Undersize[]): CleanUp | null {
  if (smallest.length === 0) return null;
  const least = Math.min(...smallest);
  const bySize = [...undersizes].sort((a, b) => b.journal.high - a.journal.high);
  const found = bySize.find(({ journal }) => least >= journal.low);
  if (!found) return null;
  return {
    undersize: found,
    leastCut: nanometres(Math.max(0, least - found.journal.high)),
    mostCut: nanometres(least - found.journal.low),
  };
}

/** Halves that suit a size, and the clearance they would give. */
export interface SuitedHalves {
  readonly upper: string;
  readonly lower: string;
  readonly interval: ClearanceInterval;
}

/** The halves that would suit a bore once the journal is ground to an undersize: the grades whose clearance keeps its limits best. */
export function shellsAfterGrinding(
  bore: SizeBand,
  { journal, grades }: { readonly journal: SizeBand; readonly grades: readonly TypeGrade[] },
  limits: ClearanceLimits,
  aim: Nanometres,
): SuitedHalves | null {
  const sorted = [...grades].sort((a, b) => a.low - b.low || a.high - b.high);
  const best = ratedPairs(bore, journal, sorted, { limits, aim, mixed: true })[0];
  return best ? { upper: best.upper, lower: best.lower, interval: best.interval } : null;
}

/**
 * The undersize that goes with standard limits and grades, to start from: journals smaller by the amount, walls thicker by half of it.
 * Arithmetic, not data: the maker's sheet decides.
 */
export function derivedUndersize(
  name: string,
  amount: Nanometres,
  standard: { readonly low: Nanometres; readonly high: Nanometres; readonly source: string },
  grades: readonly TypeGrade[],
): Undersize {
  const less = (value: number) => nanometres(value - amount);
  const thicker = (value: number) => nanometres(Math.round(value + amount / 2));
  return {
    name,
    amount,
    journal: { low: less(standard.low), high: less(standard.high), source: standard.source },
    grades: grades.map((grade) => ({ ...grade, low: thicker(grade.low), high: thicker(grade.high) })),
  };
}
