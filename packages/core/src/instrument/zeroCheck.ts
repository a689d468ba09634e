import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { nanometresSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';

/** An instrument looked at on its setting standard, before or after work. */
export const zeroCheckSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  at: momentSchema,
  by: personSchema,
  standard: sizeNmSchema.nullable().describe('Size of the standard; null: not given.'),
  shown: nanometresSchema.describe('What the instrument showed too much on the standard; below zero: too little.'),
  isReset: z.boolean().describe('True if it was reset to zero at once.'),
});
export type ZeroCheck = z.output<typeof zeroCheckSchema>;

/** What an instrument moved by between two checks that follow each other. */
export interface DriftSpan {
  readonly from: ZeroCheck;
  readonly to: ZeroCheck;
  /** What it showed too much when the span began, nm: nothing where it was brought to zero. */
  readonly start: number;
  /** What it moved by until the check that ended the span, nm. */
  readonly drift: number;
}

/**
 * What an instrument moved by from each zero check to the next.
 *
 * @param checks of one instrument, any order
 * @returns the spans from the first to the last; none with fewer than two checks
 */
export function driftSpans(checks: readonly ZeroCheck[]): DriftSpan[] {
  const inOrder = [...checks].sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  return inOrder.slice(1).map((to, index) => {
    const from = inOrder[index]!;
    const start = from.isReset ? 0 : from.shown;
    return { from, to, start, drift: to.shown - start };
  });
}

/**
 * The span in which something was read, where the instrument moved in it by more than is allowed; null where it did not, or was not
 * checked both before and after.
 *
 * @param at moment of the reading
 * @param allowed nm, 0 or above
 */
export function suspectSpan(spans: readonly DriftSpan[], at: string, allowed: number): DriftSpan | null {
  return spans.find(({ from, to, drift }) => at >= from.at && at < to.at && Math.abs(drift) > allowed) ?? null;
}

/**
 * What an instrument showed too much at a moment within a span, nm, if it moved evenly in time.
 *
 * @example driftedBy({ from: { at: '2026-11-30T08:00:00Z' }, to: { at: '2026-11-30T10:00:00Z' }, start: 0, drift: 4000 }, '2026-11-30T09:00:00Z') // 2000
 */
export function driftedBy(
  {
    from,
    to,
    start,
    drift,
  }: {
    readonly from: Pick<ZeroCheck, 'at'>;
    readonly to: Pick<ZeroCheck, 'at'>;
    readonly start: number;
    readonly drift: number;
  },
  at: string,
): number {
  const [begin, end, then] = [from.at, to.at, at].map((moment) => Date.parse(moment)) as [number, number, number];
  return Math.round(start + (drift * (then - begin)) / Math.max(1, end - begin));
}
