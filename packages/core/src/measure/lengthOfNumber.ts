import { divideRounded, type Nanometres, nanometres } from './nanometres.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/**
 * The length that a number in a file means. The number is taken as the shortest decimal that stands for it (what was
 * written in the file), so 2.00004 in is 50 801 016 nm and not the 50 801 015 that binary arithmetic truncates to.
 * Finer than a nanometre is rounded, halves away from zero.
 *
 * @param value a finite number
 * @param unit its unit
 * @throws RangeError beyond ±1 km
 * @example lengthOfNumber(2.00004, 'in') // 50801016
 */
export function lengthOfNumber(value: number, unit: Unit): Nanometres {
  const product = value * NANOMETRES_PER[unit];
  const nearest = Math.round(product);
  // A product this near to a whole number is off by far less than a half: it can only mean that number.
  if (Math.abs(product - nearest) < 1e-3 && Math.abs(product) < 1e11) return nanometres(nearest);

  const match = /^(-?)(\d+)(?:\.(\d+))?(?:e([+-]\d+))?$/u.exec(String(value));
  if (!match) throw new RangeError(`${value} is not a finite number`);
  const [, sign = '', whole = '', decimals = '', exponent = '0'] = match;
  const power = Number(exponent) - decimals.length;
  if (power < -400 || power > 20) throw new RangeError(`${value} ${unit} is out of range`);
  const mantissa = BigInt(whole + decimals) * BigInt(NANOMETRES_PER[unit]) * (sign === '-' ? -1n : 1n);
  const exact = power >= 0 ? mantissa * 10n ** BigInt(power) : divideRounded(mantissa, 10n ** BigInt(-power));
  return nanometres(Number(exact));
}
