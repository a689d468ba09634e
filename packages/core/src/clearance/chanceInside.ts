import type { SizeBand } from '../measure/sizeBand.js';
import type { ClearanceLimits } from './clearanceVerdict.js';

/** What is known of the four sizes that make a clearance; a measured size is a band of no width. */
export interface ClearanceBands {
  readonly bore: SizeBand;
  readonly journal: SizeBand;
  readonly upper: SizeBand;
  readonly lower: SizeBand;
}

/** The volume, times n!, of the part of a box with the given edges in which the sum of the coordinates is at most `sum`. */
function cutVolume(edges: readonly bigint[], sum: bigint): bigint {
  let volume = 0n;
  for (let subset = 0; subset < 1 << edges.length; subset += 1) {
    let rest = sum;
    let sign = 1n;
    edges.forEach((edge, at) => {
      if ((subset >> at) % 2 === 0) return;
      rest -= edge;
      sign = -sign;
    });
    if (rest > 0n) volume += sign * rest ** BigInt(edges.length);
  }
  return volume;
}

/**
 * The chance that an oil clearance lies inside its limits when each of its sizes is only known to lie somewhere in its band, evenly
 * and on its own. Exact: the distribution of a sum of uniform variables by inclusion and exclusion (Feller, An Introduction to
 * Probability Theory and Its Applications II, I.9; cited from memory), in whole numbers.
 *
 * @param offset assembly offset, nm
 * @returns 0 to 1
 * @example chanceInside({ bore: { low: 0, high: 10 }, journal: { low: 0, high: 0 }, upper: { low: 0, high: 0 }, lower: { low: 0, high: 0 } }, { low: 0, high: 5 }) // 0.5
 */
export function chanceInside(
  { bore, journal, upper, lower }: ClearanceBands,
  limits: ClearanceLimits,
  offset = 0,
): number {
  const tightest = bore.low - journal.high - upper.high - lower.high + offset;
  const edges = [bore, journal, upper, lower].map((band) => band.high - band.low).filter((width) => width > 0);
  if (edges.length === 0) return tightest >= limits.low && tightest <= limits.high ? 1 : 0;
  const wide = edges.map(BigInt);
  const upTo = (clearance: number) => {
    const room = clearance - tightest;
    return cutVolume(
      wide,
      BigInt(
        Math.min(
          room,
          edges.reduce((sum, edge) => sum + edge, 0),
        ),
      ),
    );
  };
  const whole = wide.reduce((product, edge, at) => product * edge * BigInt(at + 1), 1n);
  const inside = upTo(limits.high) - (limits.low > tightest ? upTo(limits.low) : 0n);
  // Seven digits are far more than bands are known to; the quotient of two whole numbers keeps them exactly.
  const share = Number((inside * 10_000_000n) / whole) / 10_000_000;
  return Math.max(0, share);
}
