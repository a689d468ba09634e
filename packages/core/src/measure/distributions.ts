/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

/**
 * Chance that an F-distributed ratio is at least `f`.
 *
 * @param f 0 or above
 * @param above degrees of freedom of the upper mean square, 1 or above
 * @param below degrees of freedom of the lower one, 1 or above
 * @returns 0 to 1
 * @example Math.round(1e4 * fTail(2.04, 9, 60)) // 500
 */
export function fTail(f: number, above: number, below: number): number {
  return 1 - jstat.centralF.cdf(f, above, below);
}

/**
 * The ratio that an F-distributed one stays below with a chance of `p`.
 *
 * @param p above 0, below 1
 * @example Math.round(100 * fQuantile(0.95, 9, 60)) // 204
 */
export function fQuantile(p: number, above: number, below: number): number {
  return jstat.centralF.inv(p, above, below);
}

/**
 * What a chi-square of so many degrees of freedom stays below with a chance of `p`.
 *
 * @param p above 0, below 1
 * @param freedom above 0
 * @example Math.round(100 * chiSquareQuantile(0.95, 9)) // 1692
 */
export function chiSquareQuantile(p: number, freedom: number): number {
  return jstat.chisquare.inv(p, freedom);
}

/**
 * Chance that Student's t of so many degrees of freedom is at most `t`.
 *
 * @param freedom above 0
 * @example studentChance(2.5706, 5).toFixed(3) // '0.975'
 */
export function studentChance(t: number, freedom: number): number {
  return jstat.studentt.cdf(t, freedom);
}

/**
 * What Student's t of so many degrees of freedom stays below with a chance of `p`.
 *
 * @param p above 0, below 1
 * @param freedom above 0
 * @example studentQuantile(0.975, 5).toFixed(2) // '2.57'
 */
export function studentQuantile(p: number, freedom: number): number {
  return jstat.studentt.inv(p, freedom);
}
