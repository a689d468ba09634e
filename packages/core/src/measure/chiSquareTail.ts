import { normalChance } from './normalChance.js';

/**
 * The chance that a chi-square of so many degrees of freedom is at least `x`: closed forms for one and two, then the recurrence in steps of
 * two (Abramowitz and Stegun, Handbook of Mathematical Functions, 26.4.4 to 26.4.8; cited from memory).
 *
 * @param x 0 or above
 * @param freedom whole, 1 or above
 * @returns 0 to 1
 * @example Math.round(1e6 * chiSquareTail(2, 2)) // Math.round(1e6 * Math.exp(-1))
 */
export function chiSquareTail(x: number, freedom: number): number {
  const isOdd = freedom % 2 === 1;
  const root = Math.sqrt(x);
  let tail = isOdd ? 1 - normalChance(0, 1, { low: -root, high: root }) : Math.exp(-x / 2);
  // What the next two degrees add: (x/2)^(k/2) e^(−x/2) / Γ(k/2 + 1).
  let term = isOdd ? Math.sqrt((2 * x) / Math.PI) * Math.exp(-x / 2) : (x / 2) * Math.exp(-x / 2);
  for (let known = isOdd ? 1 : 2; known < freedom; known += 2) {
    tail += term;
    term *= x / (known + 2);
  }
  return Math.min(1, tail);
}
