declare const nanometreBrand: unique symbol;

/**
 * A length as a whole number of nanometres. Every size, limit, wall and clearance in Fettle is kept like this, so sums
 * and comparisons are exact: 0.001 mm is 1000 nm and 0.00001 in is 254 nm, both without remainder.
 */
export type Nanometres = number & { readonly [nanometreBrand]: 'nm' };

/** The longest length that is taken, 1 km in nanometres: far above any housing, far below where integers lose exactness. */
export const LONGEST = 1_000_000_000_000;

/**
 * Marks a whole number as a length.
 *
 * @param value whole nanometres, −1 km to 1 km
 * @throws RangeError when the value is no whole number or out of that range: a programming fault, typed text goes
 *   through `parseLength`
 * @example formatLength(nanometres(62_230_000), 'in', 4) // '2.4500'
 */
export function nanometres(value: number): Nanometres {
  if (!Number.isSafeInteger(value) || Math.abs(value) > LONGEST) {
    throw new RangeError(`${value} is not a whole number of nanometres within ±1 km`);
  }
  return (value === 0 ? 0 : value) as Nanometres;
}

/** `numerator / denominator` to the nearest whole number, halves away from zero; the denominator is above 0. */
export function divideRounded(numerator: bigint, denominator: bigint): bigint {
  const magnitude = numerator < 0n ? -numerator : numerator;
  const rounded = (2n * magnitude + denominator) / (2n * denominator);
  return numerator < 0n ? -rounded : rounded;
}
