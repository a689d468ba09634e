import type { ScarcePart } from './ScarcePart.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * Improves the best plan by taking the options of two stations out and putting the cheapest two back that fit, until no
 * pair of stations gains.
 *
 * @returns true if the plan became cheaper
 */
export function exchangePairs(part: ScarcePart): boolean {
  const path = part.bestPath;
  if (!path) return false;
  const before = part.best;
  for (let station = 0; station < part.count; station += 1) part.take(path[station]!, 1);
  for (let gained = true; gained; ) {
    gained = false;
    for (let one = 0; one < part.count; one += 1) {
      for (let other = one + 1; other < part.count; other += 1) gained = exchangePair(part, path, one, other) || gained;
    }
  }
  for (let station = 0; station < part.count; station += 1) part.take(path[station]!, -1);
  return part.best < before;
}

function exchangePair(part: ScarcePart, path: Int32Array, one: number, other: number): boolean {
  const { cost } = part;
  const present = cost[path[one]!]! + cost[path[other]!]!;
  let best = present;
  let pick: [number, number] | null = null;
  part.take(path[one]!, -1);
  part.take(path[other]!, -1);
  for (const first of part.alive[one]!) {
    if (cost[first]! >= best || !part.isFree(first)) continue;
    part.take(first, 1);
    for (const second of part.alive[other]!) {
      const sum = cost[first]! + cost[second]!;
      if (sum < best && part.isFree(second) && isEven(part, path, one, first, other, second)) {
        best = sum;
        pick = [first, second];
      }
    }
    part.take(first, -1);
  }
  if (pick) [path[one], path[other]] = pick;
  part.take(path[one]!, 1);
  part.take(path[other]!, 1);
  part.best += best - present;
  return pick !== null;
}

/** True if the plan keeps its spread when two of its stations change. */
function isEven(
  part: ScarcePart,
  path: Int32Array,
  one: number,
  first: number,
  other: number,
  second: number,
): boolean {
  for (const group of new Set([part.groupOf[one]!, part.groupOf[other]!])) {
    if (part.spread[group] === INFINITY) continue;
    let low = INFINITY;
    let high = -INFINITY;
    for (let station = 0; station < part.count; station += 1) {
      if (part.groupOf[station] !== group) continue;
      const option = station === one ? first : station === other ? second : path[station]!;
      low = Math.min(low, part.deviation[option]!);
      high = Math.max(high, part.deviation[option]!);
    }
    if (high - low > part.spread[group]!) return false;
  }
  return true;
}
