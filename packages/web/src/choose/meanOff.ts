import { formatLength, nanometres, type Unit } from '@fettle/core';

/**
 * What a cost comes to at the bench: how far stations lie off their aims on average, µm; a shortfall and a mixed pair weigh as the rules
 * say. The cost is a sum of squares over the stations.
 */
function meanOffUm(cost: number, stations: number): number {
  return Math.sqrt(Math.max(0, cost) / Math.max(1, stations));
}

/** The same as it is read: `0.0006 mm`. */
export function meanOffText(cost: number, stations: number, unit: Unit): string {
  const nm = nanometres(Math.round(meanOffUm(cost, stations) * 1000));
  return `${formatLength(nm, unit, unit === 'mm' ? 4 : 5)} ${unit}`;
}

/**
 * By how much one cost is further off the aim on average than another: `0.0004 mm`; null where nobody could tell them apart.
 *
 * @returns without a sign: which of them is further off is the caller's to say
 */
export function moreOffText(cost: number, than: number, stations: number, unit: Unit): string | null {
  const by = Math.abs(meanOffUm(cost, stations) - meanOffUm(than, stations));
  const nm = nanometres(Math.round(by * 1000));
  const isNothing = nm < (unit === 'mm' ? 50 : 127);
  return isNothing ? null : `${formatLength(nm, unit, unit === 'mm' ? 4 : 5)} ${unit}`;
}

/**
 * What a saving of cost comes to at one station: `0.0020 mm` nearer to its aim there, all the others as they are; null where nobody could
 * tell.
 */
export function worthText(saving: number, unit: Unit): string | null {
  return moreOffText(saving, 0, 1, unit);
}
