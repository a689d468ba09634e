import { type Budget, budgetUncertainty, sumBudget } from '../measure/budget.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { readingUncertainty } from '../measure/instrument.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { evenly } from '../measure/uncertainty.js';
import type { Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import type { InstrumentUse } from '../reading/instrumentUses.js';
import { type InstrumentsJob, instrumentFor } from '../reading/readWith.js';
import { type PlacedHalf, sizeBudget, wallsBudget } from './sources.js';

/** A wall as it is known: measured, or by the band of its grade. */
export interface KnownWall {
  readonly band?: SizeBand | undefined;
}

/**
 * Standard uncertainty of a size, nm: of one that was read that of its instruments and of how many readings; of one that is only marked,
 * evenly over its band.
 *
 * @param use what the size is of
 * @example Math.round(sizeUncertainty({}, 'mainBore', { kind: 'marked', nominal: 5000, smallest: 0, largest: 10_000 })) // 2887
 */
export function sizeUncertainty(job: InstrumentsJob, use: InstrumentUse, size: EffectiveSize): number {
  return budgetUncertainty(sizeBudget(job, use, '', size));
}

/**
 * Standard uncertainty of a wall, nm: measured once over a ball, or evenly over the band of its grade.
 *
 * @example Math.round(wallUncertainty({}, { band: { low: 1_995_000, high: 2_005_000 } })) // 2887
 */
export function wallUncertainty(
  job: Pick<InstrumentsJob, 'instruments' | 'registered' | 'using'>,
  { band }: KnownWall,
): number {
  return band ? evenly((band.high - band.low) / 2) : readingUncertainty(instrumentFor(job, 'walls'), 1);
}

/** What a predicted clearance is made from. */
export interface ClearanceParts {
  /** `M1` or `P2`. */
  readonly station: string;
  readonly family: Family;
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
  job: InstrumentsJob,
  { station, family, housing, bore, journal, upper, lower, offset }: ClearanceParts,
): Budget {
  return sumBudget([
    [sizeBudget(job, featureOf(family, 'housing'), `bore ${housing}`, bore), 1],
    [sizeBudget(job, featureOf(family, 'journal'), `journal ${station}`, journal), -1],
    [wallsBudget(job, station, { upper, lower }), -1],
    [offset?.budget ?? [], 1],
  ]);
}
