import { FINE_DECIMALS, type FitSolution, formatLength, nanometres, planOffTarget, type ShownUnit } from '@fettle/core';

/** A clearance as finely as an average is told: `0.0006 mm`. */
export function fineText(nm: number, unit: ShownUnit): string {
  return `${formatLength(nanometres(Math.round(nm)), unit, FINE_DECIMALS[unit])} ${unit}`;
}

/** How far the stations of a plan are off their targets on average: the mean of the distances. */
export function meanOffText(plan: Pick<FitSolution, 'stations'>, shown: ShownUnit): string {
  const off = planOffTarget(plan);
  return off === null ? '·' : fineText(off.mean, shown);
}

/** A change of the mean distance, and which way it goes. */
export interface MoreOff {
  /** Without a sign: `0.0004 mm`. */
  readonly text: string;
  readonly isFurther: boolean;
}

/** By how much one mean distance is more than another, nm; null where nobody could tell them apart. */
export function moreOff(mean: number, than: number, unit: ShownUnit): MoreOff | null {
  const by = Math.abs(mean - than);
  if (by < (unit === 'mm' ? 50 : 127)) return null;
  return { text: fineText(by, unit), isFurther: mean > than };
}

/** How much better than what was found is not ruled out, of its cost: `up to 12 %`. */
export function gapText(cost: number, bound: number): string {
  const share = cost > 0 ? Math.max(0, 1 - Math.max(0, bound) / cost) : 0;
  return `up to ${Math.max(1, Math.ceil(100 * share))} %`;
}
