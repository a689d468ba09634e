import { normalChance } from '../measure/normalChance.js';

/** What was found on one engine, with its standard uncertainty; both in one unit. */
export interface EngineResult {
  readonly value: number;
  /** Above zero. */
  readonly u: number;
}

/** What engines have in common, and what the next one may be. */
export interface RandomEffects {
  /** The mean over engines: each weighed by what it is known to and by what engines differ. */
  readonly mean: number;
  /** Standard uncertainty of the mean. */
  readonly u: number;
  /** Standard deviation from one engine to another, beyond what is known of each. */
  readonly between: number;
  /** Standard uncertainty of what the next engine is: that of the mean, what engines differ by, and how little is known of that. */
  readonly uNext: number;
  /** Within which the next engine is with a chance of 95 %; null with fewer than three engines, which tell too little of how engines differ. */
  readonly next: { readonly low: number; readonly high: number } | null;
  readonly engines: number;
}

/** Halvings of the interval that the spread between engines lies in: to the last bit of a number. */
const HALVINGS = 200;

/** The mean weighed by `1/(u² + τ²)`, and the sum of the weighed squares about it. */
function weighed(results: readonly EngineResult[], variance: number) {
  const weights = results.map(({ u }) => 1 / (u ** 2 + variance));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = results.reduce((sum, { value }, at) => sum + weights[at]! * value, 0) / whole;
  const squares = results.reduce((sum, { value }, at) => sum + weights[at]! * (value - mean) ** 2, 0);
  return { mean, whole, squares };
}

/**
 * The variance between engines for which the weighed squares are as many as there are engines less one, by halving an interval.
 *
 * Paule and Mandel, Consensus values and weighting factors, 1982; cited from memory.
 */
function varianceBetween(results: readonly EngineResult[]): number {
  const wanted = results.length - 1;
  const excess = (variance: number) => weighed(results, variance).squares - wanted;
  if (wanted < 1 || excess(0) <= 0) return 0;
  const values = results.map(({ value }) => value);
  // Squares of the whole range cannot be fewer than are wanted.
  let [low, high] = [0, (Math.max(...values) - Math.min(...values)) ** 2 * results.length];
  for (let at = 0; at < HALVINGS && low < high; at += 1) {
    const middle = (low + high) / 2;
    if (excess(middle) > 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Spreads between engines that are looked at, evenly from none to `MOST_TIMES` the range of what was found. */
const SPREADS = 120;
const MOST_TIMES = 6;
/** How many standard deviations the normal distribution has on either side of 95 %. */
const NORMAL_95 = 1.959_964;

/**
 * Within which the next engine is with a chance of 95 %: over all spreads between engines, each as likely as what was found makes it from a flat prior
 * (Gelman, Prior distributions for variance parameters, 2006; cited from memory). One spread alone, the likeliest, promises too much where
 * engines are few.
 *
 * @param results of three engines at least
 */
function nextEngine(results: readonly EngineResult[]): { readonly low: number; readonly high: number } {
  const values = results.map(({ value }) => value);
  const range = Math.max(...values) - Math.min(...values) + Math.max(...results.map(({ u }) => u));
  const spreads = Array.from({ length: SPREADS }, (_, at) => {
    const variance = ((at * MOST_TIMES * range) / (SPREADS - 1)) ** 2;
    const { mean, whole, squares } = weighed(results, variance);
    const logs = results.reduce((sum, { u }) => sum + Math.log(u ** 2 + variance), Math.log(whole));
    return { mean, u: Math.sqrt(1 / whole + variance), likely: -(logs + squares) / 2 };
  });
  const most = Math.max(...spreads.map(({ likely }) => likely));
  const weighedBy = spreads.map((one) => ({ ...one, weight: Math.exp(one.likely - most) }));
  const all = weighedBy.reduce((sum, { weight }) => sum + weight, 0);
  const below = (limit: number) =>
    weighedBy.reduce(
      (sum, { mean, u, weight }) =>
        sum + weight * normalChance(mean, u, { low: Number.NEGATIVE_INFINITY, high: limit }),
      0,
    ) / all;
  const at = (chance: number) => {
    const reach = 4 * MOST_TIMES * range;
    let [low, high] = [Math.min(...values) - reach, Math.max(...values) + reach];
    for (let step = 0; step < 40; step += 1) {
      const middle = (low + high) / 2;
      if (below(middle) < chance) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  return { low: at(0.025), high: at(0.975) };
}

/**
 * What several engines say together of something that differs from engine to engine: a random-effects mean, not a plain one. The uncertainty of the mean
 * is `1/Σw` scaled by the squares that are left (Hartung and Knapp, 2001, and Sidik and Jonkman, 2002; cited from memory), never below `1/Σw`.
 * The next engine is told over all spreads that are possible, not by the likeliest alone.
 *
 * @returns null without an engine
 * @example randomEffects([{ value: 2, u: 1 }, { value: 2, u: 1 }])?.between // 0
 */
export function randomEffects(results: readonly EngineResult[]): RandomEffects | null {
  const engines = results.length;
  if (engines === 0) return null;
  const variance = varianceBetween(results);
  const { mean, whole, squares } = weighed(results, variance);
  const scale = engines > 1 ? Math.max(1, squares / (engines - 1)) : 1;
  const u = Math.sqrt(scale / whole);
  const next = engines > 2 ? nextEngine(results) : null;
  return {
    mean,
    u,
    between: Math.sqrt(variance),
    uNext: next ? (next.high - next.low) / 2 / NORMAL_95 : Math.hypot(u, Math.sqrt(variance)),
    next,
    engines,
  };
}
