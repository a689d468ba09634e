import { meanOf } from './mean.js';

/** One point: where it is, and what was read there. */
export interface LinePoint {
  readonly at: number;
  readonly value: number;
}

/** A line laid through points so that the squares of what they are off it are least. */
export interface FittedLine {
  /** Value at `from`, and by how much it rises for each unit of `at`. */
  readonly intercept: number;
  readonly slope: number;
  /** Where the intercept is told. */
  readonly from: number;
  /** Standard uncertainties of both, by how the points scatter; null with two points, which no scatter shows. */
  readonly uIntercept: number | null;
  readonly uSlope: number | null;
  /** Correlation of the two errors, −1 to 1. */
  readonly correlation: number;
}

/**
 * The least-squares line through points (JCGM 100:2008, H.3; cited from memory).
 *
 * @param points two at least, at two places at least
 * @param from where the intercept is told, in the unit of `at`
 * @throws RangeError where all points are at one place
 * @example fittedLine([{ at: 0, value: 1 }, { at: 2, value: 5 }]).slope // 2
 */
export function fittedLine(points: readonly LinePoint[], from = 0): FittedLine {
  const middle = meanOf(points.map(({ at }) => at));
  const level = meanOf(points.map(({ value }) => value));
  const spread = points.reduce((sum, { at }) => sum + (at - middle) ** 2, 0);
  if (!(spread > 0)) throw new RangeError('A line needs points at two places.');
  const slope = points.reduce((sum, { at, value }) => sum + (at - middle) * (value - level), 0) / spread;
  const intercept = level + slope * (from - middle);
  const freedom = points.length - 2;
  const rest = points.reduce((sum, { at, value }) => sum + (value - intercept - slope * (at - from)) ** 2, 0);
  const s = freedom > 0 ? Math.sqrt(rest / freedom) : null;
  const share = 1 / points.length + (middle - from) ** 2 / spread;
  return {
    intercept,
    slope,
    from,
    uIntercept: s === null ? null : s * Math.sqrt(share),
    uSlope: s === null ? null : s / Math.sqrt(spread),
    correlation: (from - middle) / Math.sqrt(spread * share),
  };
}

/**
 * The value of a line at a place.
 *
 * @example valueOnLine({ intercept: 2, slope: 0.5, from: 10 }, 14) // 4
 */
export function valueOnLine({ intercept, slope, from }: FittedLine, at: number): number {
  return intercept + slope * (at - from);
}

/**
 * Standard uncertainty of a line's value at a place: grows with the distance from the middle of its points (JCGM 100:2008, H.3.4).
 *
 * @returns null with two points, which no scatter shows
 * @example uncertaintyOnLine({ uIntercept: 3, uSlope: 2, correlation: 0, from: 0 }, 2) // 5
 */
export function uncertaintyOnLine({ uIntercept, uSlope, correlation, from }: FittedLine, at: number): number | null {
  if (uIntercept === null || uSlope === null) return null;
  const away = at - from;
  return Math.sqrt(uIntercept ** 2 + (away * uSlope) ** 2 + 2 * away * uIntercept * uSlope * correlation);
}
