import { divideRounded, type Nanometres } from './nanometres.js';
import type { ShownUnit } from './shownUnit.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/** Typographic minus, as wide as a digit in tabular figures. */
const MINUS = '−';

export interface FormatOptions {
  /** Show a plus sign in front of positive lengths, for deviations. */
  readonly plus?: boolean;
  /** The most decimals that are shown: for a figure that was worked out, whose last digits nobody typed. */
  readonly most?: number;
}

function digitsOf(length: Nanometres, nmPerUnit: number, decimals: number): { negative: boolean; digits: string } {
  const scaled = divideRounded(BigInt(length) * 10n ** BigInt(decimals), BigInt(nmPerUnit));
  const magnitude = (scaled < 0n ? -scaled : scaled).toString().padStart(decimals + 1, '0');
  const cut = magnitude.length - decimals;
  return {
    negative: scaled < 0n,
    digits: decimals === 0 ? magnitude : `${magnitude.slice(0, cut)}.${magnitude.slice(cut)}`,
  };
}

/**
 * Writes a length with a fixed number of decimals, halves rounded away from zero, without a unit.
 *
 * @param length whole nanometres
 * @param unit mm, in or thousandths of an inch
 * @param decimals digits behind the point, 0 to 9
 * @example formatLength(nanometres(50_000), 'in', 5) // '0.00197'
 */
export function formatLength(
  length: Nanometres,
  unit: ShownUnit,
  decimals: number,
  options: FormatOptions = {},
): string {
  const { negative, digits } = digitsOf(length, NANOMETRES_PER[unit], decimals);
  const sign = negative ? MINUS : options.plus && length > 0 ? '+' : '';
  return sign + digits;
}

/** Decimals that tell every nanometre from the next: one of mm, and 0.254 of them in inches. */
const MOST_DECIMALS: Readonly<Record<ShownUnit, number>> = { mm: 6, in: 8, thou: 5 };

/** The most decimals of a figure that was worked out. */
export const WORKED_OUT_DECIMALS: Readonly<Record<ShownUnit, number>> = { mm: 6, in: 6, thou: 3 };

/** True if the length, written with so many decimals, is read back as the very same nanometres. */
function comesBackAt(length: Nanometres, unit: ShownUnit, decimals: number): boolean {
  const [scale, nmPerUnit] = [10n ** BigInt(decimals), BigInt(NANOMETRES_PER[unit])];
  return divideRounded(divideRounded(BigInt(length) * scale, nmPerUnit) * nmPerUnit, scale) === BigInt(length);
}

/**
 * Writes a length with as few decimals as come back as the same nanometres when they are read, but at least `fewest`: what was typed, in
 * either unit, is never another size for having been shown. `most` cuts that short.
 *
 * @example formatExactLength(nanometres(62_230_000), 'in', 4) // '2.4500'
 * @example formatExactLength(nanometres(62_003_005), 'in', 4) // '2.4410632'
 */
export function formatExactLength(
  length: Nanometres,
  unit: ShownUnit,
  fewest: number,
  options: FormatOptions = {},
): string {
  const most = Math.max(fewest, Math.min(options.most ?? MOST_DECIMALS[unit], MOST_DECIMALS[unit]));
  let decimals = fewest;
  while (decimals < most && !comesBackAt(length, unit, decimals)) decimals += 1;
  return formatLength(length, unit, decimals, options);
}

/**
 * A length as the number that goes into a file or over the wire, in its unit: the double nearest to the exact quotient,
 * which `lengthOfNumber` turns back into the same nanometres.
 *
 * @example numberOfLength(41_000, 'mm') // 0.041
 */
export function numberOfLength(length: Nanometres, unit: Unit): number {
  return length / NANOMETRES_PER[unit];
}

/**
 * As many decimals as let every one of the lengths come back exactly, from `fewest` up to `most`: for figures set one above the other.
 *
 * @example commonDecimals([64_012_000, 59_981_500], 'mm', 3, 4) // 4
 */
export function commonDecimals(lengths: readonly Nanometres[], unit: ShownUnit, fewest: number, most: number): number {
  let decimals = fewest;
  while (decimals < most && !lengths.every((length) => comesBackAt(length, unit, decimals))) decimals += 1;
  return decimals;
}
