import { type ChoiceLimits, hasEnded, spend } from './choiceLimits.js';
import type { ScarcePart } from './ScarcePart.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * The stages of price ascent, each followed by dropping options and a short dive: rounds, rounds without a better bound after
 * which the step is halved, the smallest step. Most parts are settled by the first.
 */
export const ASCENTS = [
  { rounds: 80, patience: 6, leastStep: 0.02 },
  { rounds: 300, patience: 12, leastStep: 0.01 },
  { rounds: 1500, patience: 25, leastStep: 0.001 },
] as const;
/** How strongly the ascent turns away from going back; 1 to 2. */
const DEFLECTION = 1.5;
export type Ascent = (typeof ASCENTS)[number];
/** Rounds between two questions whether to stop. */
const ASK_EVERY = 32;
/** Steps of work (see `WorkMeter`) per option in a round. */
const STEPS_OF_A_ROUND = 4;

/**
 * Raises the prices of what is over-used and lowers those of what is left over, towards the target.
 *
 * @returns the best bound found; prices, reduced costs and the order of options are left at it
 */
export function raisePrices(
  part: ScarcePart,
  target: number,
  { rounds, patience, leastStep }: Ascent,
  limits: ChoiceLimits,
): number {
  const { scarce, remaining, count } = part;
  const { start, cost, first, second, third } = byCost(part);
  // One price more, always 0, for what takes no scarce resource.
  const prices = new Float64Array(part.prices.length + 1);
  prices.set(part.prices);
  const bestPrices = prices.slice();
  const excess = new Float64Array(prices.length);
  const direction = new Float64Array(prices.length);
  let best = -INFINITY;
  let step = 1;
  let idle = 0;
  for (let round = 0; round < rounds; round += 1) {
    spend(limits, STEPS_OF_A_ROUND * (cost.length + scarce.length));
    if (round % ASK_EVERY === 0 && hasEnded(limits)) break;
    let bound = 0;
    for (const resource of scarce) {
      excess[resource] = -remaining[resource]!;
      bound -= prices[resource]! * remaining[resource]!;
    }
    for (let station = 0; station < count; station += 1) {
      const end = start[station + 1]!;
      let least = INFINITY;
      let pick = -1;
      // Prices are never below zero: no option that costs more by itself can come below the least so far.
      for (let at = start[station]!; at < end && cost[at]! < least; at += 1) {
        const value = cost[at]! + prices[first[at]!]! + prices[second[at]!]! + prices[third[at]!]!;
        if (value < least) {
          least = value;
          pick = at;
        }
      }
      bound += least;
      excess[first[pick]!]! += 1;
      excess[second[pick]!]! += 1;
      excess[third[pick]!]! += 1;
    }
    if (bound > best) {
      best = bound;
      bestPrices.set(prices);
      idle = 0;
      if (best >= target || part.isProven(best)) break;
    } else {
      idle += 1;
      if (idle >= patience) {
        step /= 2;
        idle = 0;
        if (step < leastStep) break;
      }
    }
    // Deflection (Camerini, Fratta and Maffioli, Mathematical Programming Study 3, 1975; cited from memory): where the new
    // direction points back along the last one, that part is taken out, so that the path does not zigzag.
    let along = 0;
    let lastLength = 0;
    for (const resource of scarce) {
      along += excess[resource]! * direction[resource]!;
      lastLength += direction[resource]! ** 2;
    }
    const deflection = along < 0 && lastLength > 0 ? (-DEFLECTION * along) / lastLength : 0;
    let length = 0;
    for (const resource of scarce) {
      const next = excess[resource]! + deflection * direction[resource]!;
      // A price of zero cannot go down.
      direction[resource] = next < 0 && prices[resource] === 0 ? 0 : next;
      length += direction[resource]! ** 2;
    }
    if (length === 0) break;
    const stride = (step * (target - bound)) / length;
    for (const resource of scarce) {
      prices[resource] = Math.max(0, Math.round(prices[resource]! + stride * direction[resource]!));
    }
  }
  part.prices.set(bestPrices.subarray(0, part.prices.length));
  part.reprice();
  return best;
}

/**
 * The options in play side by side, those of a station from `start[station]` on, cheapest first; what takes no scarce resource in a place
 * has one there that is never priced.
 */
function byCost(part: ScarcePart) {
  let total = 0;
  const { count } = part;
  for (const options of part.alive) total += options.length;
  const unpriced = part.prices.length;
  const start = new Int32Array(part.count + 1);
  const cost = new Float64Array(total);
  const [first, second, third] = [new Int32Array(total), new Int32Array(total), new Int32Array(total)];
  const [a, b, c] = part.use;
  let at = 0;
  for (let station = 0; station < count; station += 1) {
    for (const option of cheapestFirst(part, part.alive[station]!)) {
      cost[at] = part.cost[option]!;
      first[at] = a[option]! < 0 ? unpriced : a[option]!;
      second[at] = b[option]! < 0 ? unpriced : b[option]!;
      third[at] = c[option]! < 0 ? unpriced : c[option]!;
      at += 1;
    }
    start[station + 1] = at;
  }
  return { start, cost, first, second, third };
}

/** The options of a station by their cost alone: before they are priced they stand so already. */
function cheapestFirst({ cost }: ScarcePart, options: Int32Array): Int32Array {
  for (let at = 1; at < options.length; at += 1) {
    if (cost[options[at]!]! >= cost[options[at - 1]!]!) continue;
    return options.slice().sort((one, other) => cost[one]! - cost[other]! || one - other);
  }
  return options;
}
