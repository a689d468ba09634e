/** What was used of something. */
export interface Use {
  /** Pieces used, 0 or above. */
  readonly used: number;
  /** Over how many months, above 0. */
  readonly months: number;
}

/** A stock at which to order, and what that is worth. */
export interface ReorderLevel {
  /** Order when as many are left, or fewer. */
  readonly level: number;
  /** Chance that they last until the delivery. */
  readonly service: number;
  /** What is expected to be used until then. */
  readonly expected: number;
}

/** No level above it is looked for: a workshop has no such shelf. */
const MOST = 10_000;

/**
 * The smallest stock that lasts until a delivery with a wanted chance. Pieces are used one by one at a rate that is known from `used` in `months`, and no
 * better: what is used until the delivery then has a negative binomial distribution (a Poisson rate with a gamma posterior, prior 1/2 of a
 * piece in no time; Jeffreys). A Poisson distribution at the plain rate promises too much where little was used.
 *
 * @param leadMonths from the order to the delivery, 0 or above
 * @param service wanted chance, above 0, below 1
 * @returns the largest level looked for, with its chance, where none reaches it
 * @example reorderLevel({ used: 0, months: 12 }, 1, 0.9).level // 0
 */
export function reorderLevel({ used, months }: Use, leadMonths: number, service: number): ReorderLevel {
  const shape = used + 1 / 2;
  const share = leadMonths / (months + leadMonths);
  let chance = (1 - share) ** shape;
  let reached = chance;
  let level = 0;
  while (reached < service && level < MOST) {
    // The next term of the negative binomial from the one before.
    chance *= ((shape + level) / (level + 1)) * share;
    level += 1;
    reached += chance;
  }
  return { level, service: Math.min(1, reached), expected: (shape * leadMonths) / months };
}

/**
 * The service level that costs least: what it costs when a piece is not there against what it costs to keep one more.
 *
 * @param missing what it costs when a piece is not there, any currency, above 0
 * @param keeping what it costs to have one more on the shelf until it is used, 0 or above
 * @returns the service level that costs least, 0 to 1 (newsvendor; Arrow, Harris and Marschak, 1951, cited from memory)
 * @example serviceWorth(9, 1) // 0.9
 */
export function serviceWorth(missing: number, keeping: number): number {
  return missing / (missing + keeping);
}
