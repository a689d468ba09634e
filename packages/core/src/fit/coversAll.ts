/**
 * Whether every station can be given one of the resources it accepts, each resource at most `capacity` times: a bipartite
 * matching with capacities by augmenting paths (Kuhn 1955, Berge 1957; cited from memory). A necessary condition that
 * proves most shortages at once.
 *
 * @param accepts per station the resources it could take
 * @param capacity per resource, by position; Infinity where it never runs out
 */
export function coversAll(accepts: readonly ReadonlySet<number>[], capacity: readonly number[]): boolean {
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
  return accepts.every((_, station) => place(station, new Set()));
}
