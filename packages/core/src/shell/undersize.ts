import { z } from 'zod';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { limitSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { type Grade, gradeSchema } from './grade.js';

/** Shells for a journal ground smaller: what the journal is ground to, and the walls of the grades made for it. */
export const undersizeSchema = z.strictObject({
  name: z.string().trim().min(1, 'enter the undersize, such as 0.25').max(20),
  /** By how much the journal is smaller, on the diameter. */
  amount: sizeNmSchema,
  journal: limitSchema,
  grades: z.array(gradeSchema).max(60),
});
export type Undersize = z.infer<typeof undersizeSchema>;

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

/**
 * The undersize that goes with standard limits and grades, to start from: journals smaller by the amount, walls thicker by half of it.
 * Arithmetic, not data: the maker's sheet decides.
 */
export function derivedUndersize(
  name: string,
  amount: Nanometres,
  standard: { readonly low: Nanometres; readonly high: Nanometres; readonly source: string },
  grades: readonly Grade[],
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
