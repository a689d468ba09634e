import type { Swap, Swaps } from './swap.js';

/** The last time that a part of a place changed places with another; null where it never did. */
function lastSwap(swaps: Swaps, places: readonly string[], parts: readonly Swap['part'][]): string | null {
  const times = Object.values(swaps)
    .filter(({ part, one, other }) => parts.includes(part) && (places.includes(one) || places.includes(other)))
    .map(({ at }) => at);
  return times.length === 0 ? null : times.reduce((last, at) => (at > last ? at : last));
}

/**
 * True if parts of a place changed places after something was done or read there: then it holds no more.
 *
 * @param places the station, and the rod on it: a cap belongs to a main or a rod, halves and rods to a station
 * @param parts which parts it rests on
 * @param at when it was done
 */
export function isSwappedSince(
  { swaps }: { readonly swaps: Swaps },
  places: readonly string[],
  parts: readonly Swap['part'][],
  at: string,
): boolean {
  const last = lastSwap(swaps, places, parts);
  return last !== null && at < last;
}

/** All parts of a station. */
export const ALL_PARTS: readonly Swap['part'][] = ['cap', 'upper', 'lower', 'rod'];
