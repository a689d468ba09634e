import { ComponentSearch } from './ComponentSearch.js';
import type { ChoiceAnswer, ChoiceProblem } from './choice.js';
import { coversAll } from './coversAll.js';

/**
 * Cost of a plan made without looking back: stations in turn, those with the fewest options first, each its cheapest
 * option that still fits. Infinity when that leads nowhere.
 */
function greedyCost({ options, capacity, group, spread }: ChoiceProblem): number {
  const remaining = Float64Array.from(capacity);
  const low = new Float64Array(spread.length).fill(Number.POSITIVE_INFINITY);
  const high = new Float64Array(spread.length).fill(Number.NEGATIVE_INFINITY);
  const order = options.map((_, station) => station).sort((a, b) => options[a]!.length - options[b]!.length || a - b);
  let total = 0;
  for (const station of order) {
    const at = group[station]!;
    const limit = spread[at] ?? Number.POSITIVE_INFINITY;
    const choice = options[station]!.find(({ uses, deviation }) => {
      if (Math.max(high[at]!, deviation) - Math.min(low[at]!, deviation) > limit) return false;
      for (const resource of uses) remaining[resource]! -= 1;
      if (uses.every((resource) => remaining[resource]! >= 0)) return true;
      for (const resource of uses) remaining[resource]! += 1;
      return false;
    });
    if (!choice) return Number.POSITIVE_INFINITY;
    low[at] = Math.min(low[at]!, choice.deviation);
    high[at] = Math.max(high[at]!, choice.deviation);
    total += choice.cost;
  }
  return total;
}

/**
 * Per station how many of its options, cheapest first, a plan no worse than `ceiling` can contain, were all the others to
 * take their cheapest.
 */
function worthLookingAt({ options }: ChoiceProblem, ceiling: number): number[] {
  if (ceiling === Number.POSITIVE_INFINITY) return options.map((list) => list.length);
  const room = ceiling - options.reduce((sum, list) => sum + list[0]!.cost, 0);
  return options.map((list) => {
    const most = list[0]!.cost + room;
    let count = list.length;
    while (list[count - 1]!.cost > most) count -= 1;
    return count;
  });
}

/**
 * Drops options that can never be better than another of the same station: same use of what can run out, same deviation
 * where a spread counts, no lower cost. Returns positions into the station's options.
 */
function undominated(problem: ChoiceProblem, counts: readonly number[], scarce: Uint8Array): number[][] {
  const base = scarce.length + 1;
  return problem.options.map((options, station) => {
    const spreadCounts = problem.spread[problem.group[station]!] != null;
    const seen = new Set<number | string>();
    const kept: number[] = [];
    for (let at = 0; at < counts[station]!; at += 1) {
      const { uses, deviation } = options[at]!;
      let key = 0;
      for (const resource of uses) key = key * base + (scarce[resource] === 1 ? resource + 1 : 0);
      const taken = key > Number.MAX_SAFE_INTEGER ? uses.join() : key;
      const place = spreadCounts ? `${taken}|${deviation}` : taken;
      if (seen.has(place)) continue;
      seen.add(place);
      kept.push(at);
    }
    return kept;
  });
}

/** Marks the resources whose capacity could be exceeded by some choice. */
function scarceResources(problem: ChoiceProblem, counts: readonly number[]): Uint8Array {
  const demand = new Float64Array(problem.capacity.length);
  const most = new Uint8Array(problem.capacity.length);
  problem.options.forEach((options, station) => {
    const touched: number[] = [];
    for (let at = 0; at < counts[station]!; at += 1) {
      const { uses } = options[at]!;
      for (let place = 0; place < uses.length; place += 1) {
        const resource = uses[place]!;
        const count = place > 0 && uses[place - 1] === resource ? 2 : 1;
        if (most[resource]! === 0) touched.push(resource);
        if (most[resource]! < count) most[resource] = count;
      }
    }
    for (const resource of touched) {
      demand[resource]! += most[resource]!;
      most[resource] = 0;
    }
  });
  return Uint8Array.from(problem.capacity, (capacity, resource) => (demand[resource]! > capacity ? 1 : 0));
}

/** Groups of stations that share a scarce resource or a limited spread; each group can be solved alone. */
function components(problem: ChoiceProblem, counts: readonly number[], scarce: Uint8Array): number[][] {
  const parent = problem.options.map((_, at) => at);
  const rootOf = (at: number): number => {
    let root = at;
    while (parent[root] !== root) root = parent[root]!;
    parent[at] = root;
    return root;
  };
  const resourceUser = new Int32Array(problem.capacity.length).fill(-1);
  const groupUser = new Int32Array(problem.spread.length).fill(-1);
  const join = (users: Int32Array, at: number, station: number) => {
    const other = users[at]!;
    if (other < 0) users[at] = station;
    else if (other !== station) parent[rootOf(station)] = rootOf(other);
  };
  problem.options.forEach((options, station) => {
    const group = problem.group[station]!;
    if (problem.spread[group] != null) join(groupUser, group, station);
    for (let at = 0; at < counts[station]!; at += 1) {
      for (const resource of options[at]!.uses) if (scarce[resource] === 1) join(resourceUser, resource, station);
    }
  });
  const members = new Map<number, number[]>();
  problem.options.forEach((_, station) => {
    const root = rootOf(station);
    const list = members.get(root);
    if (list) list.push(station);
    else members.set(root, [station]);
  });
  return [...members.values()];
}

/**
 * Looks at each position of `uses` alone (uppers, lowers, housings): if its resources cannot even be shared out among the
 * stations, nothing fits. Options that use nothing scarce there do not count.
 */
function isPlainlyShort(problem: ChoiceProblem, scarce: Uint8Array): boolean {
  const positions = problem.options.reduce(
    (most, options) => options.reduce((longest, { uses }) => Math.max(longest, uses.length), most),
    0,
  );
  for (let position = 0; position < positions; position += 1) {
    const bound = problem.options.filter((options) => options.every(({ uses }) => scarce[uses[position] ?? -1] === 1));
    const accepts = bound.map((options) => new Set(options.map(({ uses }) => uses[position]!)));
    if (!coversAll(accepts, problem.capacity)) return true;
  }
  return false;
}

/** The cheapest option of a station that shares nothing with another one; null when none can be served at all. */
function cheapestAlone({ options, capacity }: ChoiceProblem, station: number, kept: readonly number[]): number | null {
  const isServed = (option: number) => {
    const { uses } = options[station]![option]!;
    return uses.every((resource) => uses.filter((other) => other === resource).length <= capacity[resource]!);
  };
  return kept.find(isServed) ?? null;
}

/**
 * Chooses one option a station at least total cost, so that no resource is taken more often than its capacity and no
 * group spreads further than allowed. Exact: branch and bound over whole-number costs with a Lagrangian bound on the
 * resources, after splitting into parts that share nothing. Deterministic.
 *
 * @param isStopped asked now and then; once it says yes, the best choice so far is the answer, with its bound
 * @returns the least cost and a choice that has it, or that there is none; both proven unless stopped
 */
export function leastChoice(problem: ChoiceProblem, isStopped: () => boolean = () => false): ChoiceAnswer {
  if (problem.options.some((options) => options.length === 0)) return { status: 'infeasible' };
  const ceiling = greedyCost(problem);
  const counts = worthLookingAt(problem, ceiling);
  const scarce = scarceResources(problem, counts);
  if (ceiling === Number.POSITIVE_INFINITY && isPlainlyShort(problem, scarce)) return { status: 'infeasible' };
  const kept = undominated(problem, counts, scarce);
  const chosen = problem.options.map(() => -1);
  let cost = 0;
  let bound = 0;
  for (const members of components(problem, counts, scarce)) {
    const alone = members.length === 1 ? cheapestAlone(problem, members[0]!, kept[members[0]!]!) : null;
    if (alone !== null) {
      chosen[members[0]!] = alone;
      cost += problem.options[members[0]!]![alone]!.cost;
      bound += problem.options[members[0]!]![alone]!.cost;
      continue;
    }
    const found = new ComponentSearch(problem, members, kept, scarce, isStopped).solve();
    if (!found) return { status: 'infeasible' };
    cost += found.cost;
    bound += found.bound;
    members.forEach((station, at) => {
      chosen[station] = found.path[at]!;
    });
  }
  return { status: bound < cost ? 'feasible' : 'optimal', cost, bound, chosen };
}
