/** What was used of something, engine by engine. */
export interface Use {
  /** Engines built, those that took none of it too. */
  readonly engines: number;
  /** Over how many months, above 0. */
  readonly months: number;
  /** How many engines took so many: by number of pieces, 1 or above; the rest took none. */
  readonly taken: readonly { readonly pieces: number; readonly engines: number }[];
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
 * The smallest stock that lasts until a delivery with a wanted chance. Engines come one by one at a rate that is known from those built, and no better: how
 * many come until the delivery has a negative binomial distribution (a Poisson rate with a gamma posterior, prior 1/2 of an engine in no time;
 * Jeffreys). Each takes as many pieces as engines before it did: shells go in twos and fours, and pieces counted one by one promise too much.
 * The sum is worked out by Panjer's recursion (Panjer, 1981; cited from memory).
 *
 * @param leadMonths from the order to the delivery, 0 or above
 * @param service wanted chance, above 0, below 1
 * @returns the largest level looked for, with its chance, where none reaches it
 * @example reorderLevel({ engines: 0, months: 12, taken: [] }, 1, 0.9).level // 0
 */
export function reorderLevel({ engines, months, taken }: Use, leadMonths: number, service: number): ReorderLevel {
  const shape = engines + 1 / 2;
  const share = leadMonths / (months + leadMonths);
  const whole = Math.max(1, engines);
  const chances = taken.map(({ pieces, engines: count }) => ({ pieces, chance: count / whole }));
  const none = 1 - chances.reduce((sum, { chance }) => sum + chance, 0);
  // By number of pieces used until the delivery.
  const used = [((1 - share) / (1 - share * none)) ** shape];
  let reached = used[0]!;
  let level = 0;
  while (reached < service && level < MOST) {
    level += 1;
    const next = chances.reduce(
      (sum, { pieces, chance }) =>
        pieces > level ? sum : sum + (1 + ((shape - 1) * pieces) / level) * chance * used[level - pieces]!,
      0,
    );
    used.push((share * next) / (1 - share * none));
    reached += used[level]!;
  }
  const each = chances.reduce((sum, { pieces, chance }) => sum + pieces * chance, 0);
  return { level, service: Math.min(1, reached), expected: ((shape * leadMonths) / months) * each };
}
