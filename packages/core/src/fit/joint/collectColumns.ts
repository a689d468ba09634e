import type { ColumnPool } from './ColumnPool.js';
import type { PricedBlocks } from './repairedPlan.js';

/** Changes of one price, in grains, at which other ways to serve the blocks are collected. */
const STEPS = [0.5, -0.5, 2, -2, 8, -8, 1000];
/** Change of a price, in grains, at which a half is done without wherever that is possible. */
const AVOID = 1000;

/** Adds to the pool how each block is served best at these prices, where it can be served at all. */
function collect({ classes }: PricedBlocks, prices: Float64Array, pool: ColumnPool): void {
  classes.forEach(({ block }, at) => {
    if (block.least(prices) < Number.POSITIVE_INFINITY) pool.add(at);
  });
}

/** Collects the ways that are best at the present prices, and at those where one half is a little cheaper or dearer. */
export function collectNear(priced: PricedBlocks, pool: ColumnPool): void {
  const asked = priced.prices.slice();
  collect(priced, asked, pool);
  for (const step of STEPS) {
    for (const resource of priced.scarce) {
      asked[resource] = Math.max(0, priced.prices[resource]! + step * priced.grain);
      collect(priced, asked, pool);
      asked[resource] = priced.prices[resource]!;
    }
  }
}

/** Collects the ways that do without two halves at once: some are so short that a block has to. */
export function collectWithoutTwo(priced: PricedBlocks, pool: ColumnPool): void {
  const { prices, scarce } = priced;
  const asked = prices.slice();
  const dear = AVOID * priced.grain;
  for (const one of scarce) {
    asked[one] = prices[one]! + dear;
    for (const other of scarce) {
      if (other === one) continue;
      asked[other] = prices[other]! + dear;
      collect(priced, asked, pool);
      asked[other] = prices[other]!;
    }
    asked[one] = prices[one]!;
  }
}
