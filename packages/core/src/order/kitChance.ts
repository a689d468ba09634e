import { type ChoiceLimits, hasEnded } from '../fit/search/choiceLimits.js';
import { DrawnEngines } from './DrawnEngines.js';
import type { KitQuestion } from './kitQuestion.js';

/** How likely it is that a kit covers an engine, and how sure that is. */
export interface KitChance {
  /** Share of the drawn engines that the kit could fit, 0 to 1. */
  readonly chance: number;
  /** The interval that holds the true chance with 95 % confidence. */
  readonly low: number;
  readonly high: number;
  /** Engines drawn: fewer than asked for where it was stopped. */
  readonly engines: number;
}

/** 97.5 % quantile of the normal distribution (tables; from memory). */
const Z = 1.959964;
const ENGINES_PER_REPORT = 250;

/**
 * Confidence interval of a share by Wilson's score (Wilson, Journal of the American Statistical Association 22, 1927; cited from
 * memory): never leaves 0 to 1, and holds for shares near either end.
 *
 * @example wilsonInterval(10, 10).high // 1
 */
export function wilsonInterval(hits: number, trials: number): { low: number; high: number } {
  if (trials === 0) return { low: 0, high: 1 };
  const share = hits / trials;
  const spread = (Z * Z) / trials;
  const centre = (share + spread / 2) / (1 + spread);
  const half = (Z / (1 + spread)) * Math.sqrt((share * (1 - share)) / trials + spread / (4 * trials));
  return { low: Math.max(0, centre - half), high: hits === trials ? 1 : Math.min(1, centre + half) };
}

/** A share of drawn engines with its confidence interval. */
export function chanceOf(hits: number, engines: number): KitChance {
  return { chance: engines === 0 ? 0 : hits / engines, ...wilsonInterval(hits, engines), engines };
}

/**
 * The chance that a kit of halves covers an engine whose sizes are only known by their bands: engines are drawn from the bands, each
 * size evenly over its band and on its own, and every one is put to the exact search (Monte Carlo).
 *
 * @param random numbers in [0, 1): the core has no randomness of its own
 * @param onEngines told how many engines were drawn so far
 */
export function kitChance(
  question: KitQuestion,
  random: () => number,
  limits: ChoiceLimits & { readonly onEngines?: (engines: number) => void } = {},
): KitChance {
  const drawn = new DrawnEngines(question, limits);
  let hits = 0;
  let count = 0;
  while (count < question.engines && !hasEnded(limits)) {
    const isFitting = drawn.fits(drawn.draw(random), drawn.stock);
    // What the limits cut short says nothing.
    if (!isFitting && hasEnded(limits)) break;
    if (isFitting) hits += 1;
    count += 1;
    if (count % ENGINES_PER_REPORT === 0) limits.onEngines?.(count);
  }
  return chanceOf(hits, count);
}
