import { studentQuantile } from './distributions.js';
import { COVERAGE } from './uncertainty.js';

/** With so many degrees of freedom Student's t is the normal distribution to six places. */
const NEARLY_NORMAL = 1e7;

/**
 * What a standard uncertainty is multiplied by to cover a share of the results: Student's t for its degrees of freedom (JCGM 100:2008, G.3 and
 * table G.2; cited from memory).
 *
 * @param freedom 1 or above; the effective ones of Welch and Satterthwaite are rounded down before; Infinity gives the normal distribution's
 * @param share covered, above 0, below 1
 * @example coverageFactor(16, 0.99).toFixed(2) // '2.92'
 */
export function coverageFactor(freedom: number, share: number): number {
  return studentQuantile((1 + share) / 2, Math.min(Math.floor(freedom), NEARLY_NORMAL));
}

/** The share that twice a standard uncertainty covers where it is certain: what ± covers, whatever its degrees of freedom. */
const COVERED = 0.9545;

/**
 * What a standard uncertainty is multiplied by for the ± that is told: 2, or more where it rests on few repeats (Student's t for the same share).
 *
 * @param freedom effective degrees of freedom, 1 or above; Infinity for none to be counted
 * @example toldFactor(Infinity).toFixed(2) // '2.00'
 */
export function toldFactor(freedom: number): number {
  return freedom === Number.POSITIVE_INFINITY ? COVERAGE : coverageFactor(freedom, COVERED);
}
