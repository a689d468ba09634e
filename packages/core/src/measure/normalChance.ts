import { studentChance } from './distributions.js';

/**
 * The standard normal distribution function, to 7.5e-8: the rational approximation 26.2.17 of Abramowitz and Stegun, Handbook of
 * Mathematical Functions (cited from memory).
 */
function standardNormal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const sum = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  const tail = (sum * Math.exp((-z * z) / 2)) / Math.sqrt(2 * Math.PI);
  return z >= 0 ? 1 - tail : tail;
}

/**
 * The chance that a true value lies inside its limits where its standard uncertainty rests on few repeats: Student's t in place of the normal
 * distribution (JCGM 106:2012, 7.5, with JCGM 100:2008, G.3; cited from memory).
 *
 * @param freedom effective degrees of freedom, rounded down; Infinity for the normal distribution
 * @returns 0 to 1
 * @example chanceByFreedom(0, 1, 3, { low: -1, high: 1 }).toFixed(4) // '0.6090'
 */
export function chanceByFreedom(
  mean: number,
  uncertainty: number,
  freedom: number,
  limits: { readonly low: number; readonly high: number },
): number {
  if (uncertainty === 0 || freedom === Number.POSITIVE_INFINITY) return normalChance(mean, uncertainty, limits);
  const whole = Math.max(1, Math.floor(freedom));
  const below = (limit: number) => studentChance((limit - mean) / uncertainty, whole);
  return Math.min(1, Math.max(0, below(limits.high) - below(limits.low)));
}

/**
 * The chance that a true value lies inside its limits when it was found as `mean` with a standard uncertainty: the conformance
 * probability of JCGM 106:2012, 7.5, for a normal distribution (cited from memory).
 *
 * @param uncertainty standard uncertainty in the unit of the limits, 0 or above; with 0 it is certain
 * @returns 0 to 1
 * @example Math.round(1000 * normalChance(5, 1, { low: 4, high: 6 })) // 683
 */
export function normalChance(mean: number, uncertainty: number, { low, high }: { low: number; high: number }): number {
  if (uncertainty === 0) return mean >= low && mean <= high ? 1 : 0;
  const chance = standardNormal((high - mean) / uncertainty) - standardNormal((low - mean) / uncertainty);
  return Math.min(1, Math.max(0, chance));
}
