/**
 * A smallest group of stations that accept fewer resources than they are: dropping any one of them would let the others be
 * served. Found with a bipartite matching with capacities by augmenting paths (Kuhn 1955, Berge 1957; cited from memory):
 * what the first station that cannot be placed reaches over full resources.
 *
 * @param accepts per station the resources it could take
 * @param capacity per resource, by position; Infinity where it never runs out
 * @returns stations by position, or null when every one can be given one of its resources
 */
export function overdrawnGroup(accepts: readonly ReadonlySet<number>[], capacity: ArrayLike<number>): number[] | null {
  const holders = new Map<number, number[]>();
  const place = (station: number, tried: Set<number>): boolean => {
    for (const resource of accepts[station]!) {
      if (tried.has(resource)) continue;
      tried.add(resource);
      const held = holders.get(resource) ?? [];
      if (held.length < capacity[resource]!) {
        holders.set(resource, [...held, station]);
        return true;
      }
      for (const [at, other] of held.entries()) {
        if (place(other, tried)) {
          holders.get(resource)![at] = station;
          return true;
        }
      }
    }
    return false;
  };
  for (let station = 0; station < accepts.length; station += 1) {
    const tried = new Set<number>();
    if (place(station, tried)) continue;
    return [station, ...[...tried].flatMap((resource) => holders.get(resource) ?? [])].sort((a, b) => a - b);
  }
  return null;
}

/** True if every station can be given one of the resources it accepts, each at most `capacity` times. */
export function coversAll(accepts: readonly ReadonlySet<number>[], capacity: ArrayLike<number>): boolean {
  return overdrawnGroup(accepts, capacity) === null;
}
