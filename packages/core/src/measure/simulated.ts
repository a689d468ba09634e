import type { Budget } from './budget.js';
import { seeded } from './seeded.js';

export interface Simulated {
  readonly mean: number;
  /** Standard deviation of what came out. */
  readonly u: number;
  /** Share that lay inside the limits. */
  readonly inside: number;
}

/**
 * What comes out of a result whose sources of error are drawn again and again: the Monte Carlo method of JCGM 101:2008 (7; cited from memory), as
 * a second way beside the law of propagation. A source is drawn once a draw, however often the result depends on it.
 *
 * @param mean the result without any error
 * @param draws how often; the result is known to about 1/√draws
 * @param seed the same seed gives the same answer
 */
export function simulatedBudget(
  mean: number,
  budget: Budget,
  limits: { readonly low: number; readonly high: number },
  draws: number,
  seed: number,
): Simulated {
  const random = seeded(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const even = () => Math.sqrt(3) * (2 * random() - 1);
  // Welford's running mean and sum of squares: no figure is subtracted from one nearly as large.
  let [middle, squares, inside] = [0, 0, 0];
  for (let at = 1; at <= draws; at += 1) {
    let result = mean;
    for (const { u, sensitivity, shape } of budget) result += sensitivity * u * (shape === 'even' ? even() : normal());
    const off = result - middle;
    middle += off / at;
    squares += off * (result - middle);
    if (result >= limits.low && result <= limits.high) inside += 1;
  }
  return { mean: middle, u: Math.sqrt(squares / Math.max(1, draws - 1)), inside: inside / draws };
}
