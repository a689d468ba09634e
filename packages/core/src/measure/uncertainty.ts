/** One thing that a result depends on. */
export interface UncertaintyTerm {
  /** Standard uncertainty of what it depends on, in any unit. */
  readonly u: number;
  /** What the result moves by when this moves by one: 1 and −1 in a sum; left out, 1. */
  readonly sensitivity?: number;
  /** Degrees of freedom; left out, as many as wanted: an uncertainty that is itself certain. */
  readonly freedom?: number;
}

/** What a result is known to. */
export interface CombinedUncertainty {
  /** Combined standard uncertainty, in the unit of the result. */
  readonly u: number;
  /** Effective degrees of freedom by Welch and Satterthwaite; Infinity where every term is certain. */
  readonly freedom: number;
}

/**
 * The standard uncertainty of something that is only known to lie within ±half, evenly (JCGM 100:2008, 4.3.7; cited from memory).
 *
 * @example Math.round(evenly(1000)) // 577
 */
export function evenly(half: number): number {
  return half / Math.sqrt(3);
}

/**
 * The standard uncertainty of something that lies within ±half and most likely near the middle, falling off evenly to both ends (JCGM 100:2008,
 * 4.3.9; cited from memory).
 *
 * @example Math.round(triangularly(1000)) // 408
 */
export function triangularly(half: number): number {
  return half / Math.sqrt(6);
}

/**
 * The standard uncertainty of something that swings between −half and +half and is longest near its ends, as the temperature of a room that a
 * thermostat holds: the arcsine distribution (JCGM 101:2008, 6.4.6; cited from memory).
 *
 * @example Math.round(swinging(1000)) // 707
 */
export function swinging(half: number): number {
  return half / Math.sqrt(2);
}

/**
 * How many times a tolerance holds what it is measured with: the measurement capability index `Cm = T / (4 u)` (JCGM 106:2012, 7.6.3; cited from
 * memory).
 *
 * @param tolerance high limit less low limit, in the unit of `u`; above 0
 * @param u standard uncertainty, above 0
 * @example capabilityIndex(0.0015, 0.0001).toFixed(2) // '3.75'
 */
export function capabilityIndex(tolerance: number, u: number): number {
  return tolerance / (2 * COVERAGE * u);
}

/**
 * Standard uncertainties that do not depend on each other, together: `u² = Σ (c·u)²`, the law of propagation of uncertainty, with the
 * Welch–Satterthwaite formula for the degrees of freedom (JCGM 100:2008, 5.1.2 and G.4.1; cited from memory).
 *
 * What is common to two sizes and falls out of their difference (the micrometer on which the gauge was zeroed) is no term of it
 * (5.2, correlation of +1).
 *
 * @example combinedUncertainty([{ u: 3 }, { u: 4 }]).u // 5
 */
export function combinedUncertainty(terms: readonly UncertaintyTerm[]): CombinedUncertainty {
  const parts = terms.map(({ u, sensitivity = 1, freedom = Number.POSITIVE_INFINITY }) => ({
    square: (u * sensitivity) ** 2,
    freedom,
  }));
  const square = parts.reduce((sum, part) => sum + part.square, 0);
  const weighed = parts.reduce((sum, part) => sum + part.square ** 2 / part.freedom, 0);
  return { u: Math.sqrt(square), freedom: weighed === 0 ? Number.POSITIVE_INFINITY : square ** 2 / weighed };
}

/** What a result is shown with: `0.048 ± 0.004` is twice its standard uncertainty, some 95 % (JCGM 100:2008, 6.2; cited from memory). */
export const COVERAGE = 2;

/**
 * Twice a standard uncertainty as it is told at the bench: in steps of what an instrument tells apart, rounded up, never as nothing.
 *
 * @param u standard uncertainty, nm
 * @param step what is told apart, nm
 * @example shownUncertainty(2_100, 1_000) // 5000
 */
export function shownUncertainty(u: number, step: number): number {
  return Math.max(1, Math.ceil((COVERAGE * u) / step - 1e-9)) * step;
}

/** Several results for one figure, each with what it is known to, taken together. */
export interface WeightedMean {
  readonly mean: number;
  /** Standard uncertainty of the mean; larger than of its own where the results lie further apart than they should. */
  readonly u: number;
  /** How much further apart the results lie than their uncertainties let expect: 1 and less is as expected (Birge 1932). */
  readonly birge: number;
}

/**
 * The mean of results of one figure, each weighed by `1/u²`; where they lie further apart than their uncertainties let expect, its own
 * uncertainty is larger by as much (the Birge ratio; Birge 1932, cited from memory).
 *
 * @param results at least one; each u above zero
 * @example weightedMean([{ value: 3, u: 1 }, { value: 5, u: 1 }]).mean // 4
 */
export function weightedMean(results: readonly { readonly value: number; readonly u: number }[]): WeightedMean {
  const weights = results.map(({ u }) => 1 / u ** 2);
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = results.reduce((sum, { value }, at) => sum + weights[at]! * value, 0) / whole;
  const spread = results.reduce((sum, { value }, at) => sum + weights[at]! * (value - mean) ** 2, 0);
  const birge = results.length > 1 ? Math.sqrt(spread / (results.length - 1)) : 0;
  return { mean, u: Math.max(1, birge) / Math.sqrt(whole), birge };
}
