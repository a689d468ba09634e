/** A band of sizes, or a mark, with how often it was seen. */
export interface Seen {
  readonly key: string;
  /** Parts seen with it, 0 or above. */
  readonly count: number;
}

/** How often a band comes, by what was seen. */
export interface BandShare {
  readonly key: string;
  readonly count: number;
  /** Expected share, 0 to 1. */
  readonly share: number;
  /** Standard deviation of what is known of the share. */
  readonly u: number;
}

/** What each band counts before anything is seen: together they are worth one part a band in two, and say that bands are alike. */
const PRIOR = 1 / 2;

/**
 * How often each band comes: a Dirichlet posterior over the bands, from a prior of 1/2 a band (Jeffreys; Gelman and others, Bayesian Data Analysis, 3.4; cited
 * from memory). Without a part that was seen all bands are alike.
 *
 * @param seen every band of the type, those that were never seen too
 * @example bandShares([{ key: 'Teal', count: 3 }, { key: 'Plum', count: 0 }])[0]?.share // 0.875
 */
export function bandShares(seen: readonly Seen[]): BandShare[] {
  const whole = seen.reduce((sum, { count }) => sum + count + PRIOR, 0);
  return seen.map(({ key, count }) => {
    const share = (count + PRIOR) / whole;
    return { key, count, share, u: Math.sqrt((share * (1 - share)) / (whole + 1)) };
  });
}

/** A draw of a gamma distribution of scale 1, by Marsaglia and Tsang, 2000 (cited from memory); shapes below 1 by their boost. */
function gamma(shape: number, random: () => number): number {
  if (shape < 1) return gamma(shape + 1, random) * (1 - random()) ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const v = (1 + c * normal) ** 3;
    if (v > 0 && Math.log(1 - random()) < 0.5 * normal ** 2 + d - d * v + d * Math.log(v)) return d * v;
  }
}

/**
 * Shares as they may truly be, drawn from what is known of them.
 *
 * @param random numbers in [0, 1)
 * @returns a share a band, in their order, together 1
 */
export function drawnShares(seen: readonly Seen[], random: () => number): number[] {
  const drawn = seen.map(({ count }) => gamma(count + PRIOR, random));
  const whole = drawn.reduce((sum, one) => sum + one, 0);
  return drawn.map((one) => one / whole);
}
