import { type Budget, sumBudget } from '../measure/budget.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { type Instrument, readingUncertainty } from '../measure/instrument.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { evenly } from '../measure/uncertainty.js';
import { type Instruments, type PlacedHalf, sizeBudget, wallsBudget } from './sources.js';

/** A wall as it is known: measured, or by the band of its grade. */
export interface KnownWall {
  readonly band?: SizeBand | undefined;
}

/**
 * Standard uncertainty of a size, nm: of one that was read that of its instrument and of how many readings; of one that is only marked,
 * evenly over its band.
 *
 * @example Math.round(sizeUncertainty({}, { kind: 'marked', nominal: 5000, smallest: 0, largest: 10_000, count: 0 })) // 2887
 */
export function sizeUncertainty(instrument: Instrument, size: EffectiveSize): number {
  return size.kind === 'read' ? readingUncertainty(instrument, size.count) : evenly((size.largest - size.smallest) / 2);
}

/**
 * Standard uncertainty of a wall, nm: measured once over a ball, or evenly over the band of its grade.
 *
 * @example Math.round(wallUncertainty({}, { band: { low: 1_995_000, high: 2_005_000 } })) // 2887
 */
export function wallUncertainty(instruments: Instruments, { band }: KnownWall): number {
  return band ? evenly((band.high - band.low) / 2) : readingUncertainty(instruments.ballMicrometer, 1);
}

/** What a predicted clearance is made from. */
export interface ClearanceParts {
  /** `M1` or `P2`. */
  readonly station: string;
  /** What its housing is called: `M1`, or `R3` of a rod. */
  readonly housing: string;
  readonly bore: EffectiveSize;
  readonly journal: EffectiveSize;
  readonly upper: PlacedHalf;
  readonly lower: PlacedHalf;
  /** The assembly offset that counts, with what it comes from. */
  readonly offset?: { readonly budget: Budget } | null | undefined;
}

/**
 * Everything that the uncertainty of a predicted clearance comes from: `bore − journal − walls + offset`. What an offset has in common with the
 * sizes (the setting of the gauge, the wall of a kind) falls out or adds up as it does at the bench.
 */
export function clearanceBudget(
  instruments: Instruments,
  { station, housing, bore, journal, upper, lower, offset }: ClearanceParts,
): Budget {
  return sumBudget([
    [sizeBudget(instruments, 'boreGauge', `bore ${housing}`, bore), 1],
    [sizeBudget(instruments, 'micrometer', `journal ${station}`, journal), -1],
    [wallsBudget(instruments, station, { upper, lower }), -1],
    [offset?.budget ?? [], 1],
  ]);
}
