import { fittedLine, type LinePoint, valueOnLine } from '../measure/straightLine.js';

/** How straight some points lie, by two methods; in the unit of their values. */
export interface Straightness {
  /** From the highest to the lowest off the least-squares line. */
  readonly leastSquares: number;
  /** The least distance of two parallel lines that hold all points between them: never above the other. */
  readonly minimumZone: number;
  /** What each point is off the least-squares line, in the order given. */
  readonly off: readonly number[];
}

/** What points are off a line of some slope: from the lowest to the highest. */
function widthAt(points: readonly LinePoint[], slope: number): number {
  const off = points.map(({ at, value }) => value - slope * at);
  return Math.max(...off) - Math.min(...off);
}

/**
 * Straightness of points along a line (ISO 12780-1: least-squares and minimum-zone reference lines; cited from memory). The minimum zone is exact: one
 * of its two lines goes through two of the points, so each pair is tried. Grows with the cube of the points: 20 take 4,000 steps.
 *
 * @param points two at least, each at a place of its own
 * @throws RangeError where two lie at one place, or there are fewer than two
 * @example straightness([{ at: 0, value: 0 }, { at: 1, value: 3 }, { at: 2, value: 0 }]).minimumZone // 3
 */
export function straightness(points: readonly LinePoint[]): Straightness {
  if (new Set(points.map(({ at }) => at)).size < Math.max(2, points.length)) {
    throw new RangeError('Straightness needs two points at least, each at a place of its own.');
  }
  const line = fittedLine(points);
  const off = points.map(({ at, value }) => value - valueOnLine(line, at));
  let least = Number.POSITIVE_INFINITY;
  for (const [nth, one] of points.entries()) {
    for (const other of points.slice(nth + 1)) {
      least = Math.min(least, widthAt(points, (other.value - one.value) / (other.at - one.at)));
    }
  }
  return { leastSquares: Math.max(...off) - Math.min(...off), minimumZone: least, off };
}

/**
 * What a point is off the straight line through its two neighbours.
 *
 * @example offNeighbours({ at: 0, value: 0 }, { at: 1, value: 5 }, { at: 4, value: 8 }) // 3
 */
export function offNeighbours(before: LinePoint, point: LinePoint, after: LinePoint): number {
  const share = (point.at - before.at) / (after.at - before.at);
  return point.value - (before.value + share * (after.value - before.value));
}
