import { divideRounded, type Nanometres } from './nanometres.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/** Typographic minus, as wide as a digit in tabular figures. */
const MINUS = '−';

export interface FormatOptions {
  /** Show a plus sign in front of positive lengths, for deviations. */
  readonly plus?: boolean;
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
 * @param unit mm or in
 * @param decimals digits behind the point, 0 to 9
 * @example formatLength(nanometres(50_000), 'in', 5) // '0.00197'
 */
export function formatLength(length: Nanometres, unit: Unit, decimals: number, options: FormatOptions = {}): string {
  const { negative, digits } = digitsOf(length, NANOMETRES_PER[unit], decimals);
  const sign = negative ? MINUS : options.plus && length > 0 ? '+' : '';
  return sign + digits;
}

/** The most decimals that `formatExactLength` writes: a nanometre, and a little under 26 nm in inches. */
const MOST_DECIMALS: Readonly<Record<Unit, number>> = { mm: 6, in: 6 };

/** Whether the length is a whole number of the last decimal's steps. */
function isExactAt(length: Nanometres, unit: Unit, decimals: number): boolean {
  return (BigInt(length) * 10n ** BigInt(decimals)) % BigInt(NANOMETRES_PER[unit]) === 0n;
}

/**
 * Writes a length with as few decimals as show it exactly, but at least `fewest`: what was typed comes back to its last
 * digit. A length that no finite figure in this unit shows (62.003 mm in inches) is rounded at six decimals.
 *
 * @example formatExactLength(nanometres(62_230_000), 'in', 4) // '2.4500'
 */
export function formatExactLength(length: Nanometres, unit: Unit, fewest: number, options: FormatOptions = {}): string {
  let decimals = fewest;
  while (decimals < MOST_DECIMALS[unit] && !isExactAt(length, unit, decimals)) decimals += 1;
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
 * As many decimals as show every one of the lengths exactly, from `fewest` up to `most`: for figures set one above the other.
 *
 * @example commonDecimals([64_012_000, 59_981_500], 'mm', 3, 4) // 4
 */
export function commonDecimals(lengths: readonly Nanometres[], unit: Unit, fewest: number, most: number): number {
  let decimals = fewest;
  while (decimals < most && !lengths.every((length) => isExactAt(length, unit, decimals))) decimals += 1;
  return decimals;
}
