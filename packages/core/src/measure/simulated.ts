import { seeded } from './seeded.js';

/** What a figure may be: normally about its mean, or evenly between two ends. */
export type Drawn =
  | { readonly kind: 'normal'; readonly mean: number; readonly u: number }
  | { readonly kind: 'even'; readonly low: number; readonly high: number };

export interface Simulated {
  readonly mean: number;
  /** Standard deviation of what came out. */
  readonly u: number;
  /** Share that lay inside the limits. */
  readonly inside: number;
}

/**
 * What comes out of figures that are drawn again and again: the Monte Carlo method of JCGM 101:2008 (7; cited from memory), as a second
 * way beside the law of propagation.
 *
 * @param figures what the result is made from
 * @param of the result of one draw
 * @param draws how often; the result is known to about 1/√draws
 * @param seed the same seed gives the same answer
 */
export function simulated(
  figures: readonly Drawn[],
  of: (drawn: readonly number[]) => number,
  limits: { readonly low: number; readonly high: number },
  draws: number,
  seed: number,
): Simulated {
  const random = seeded(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const draw = (one: Drawn) =>
    one.kind === 'normal' ? one.mean + one.u * normal() : one.low + (one.high - one.low) * random();
  // Welford's running mean and sum of squares: no figure is subtracted from one nearly as large.
  let [mean, squares, inside] = [0, 0, 0];
  for (let at = 1; at <= draws; at += 1) {
    const result = of(figures.map(draw));
    const off = result - mean;
    mean += off / at;
    squares += off * (result - mean);
    if (result >= limits.low && result <= limits.high) inside += 1;
  }
  return { mean, u: Math.sqrt(squares / Math.max(1, draws - 1)), inside: inside / draws };
}
