import type { ChoiceAnswer, ChoiceProblem } from '../model/choice.js';
import { ComponentSearch, type Unanswered } from '../search/ComponentSearch.js';
import type { ChoiceLimits } from '../search/choiceLimits.js';
import { greedyPlan } from '../search/greedyPlan.js';
import { coversAll } from '../search/overdrawnGroup.js';
import { blockClasses } from './blockClasses.js';
import { SharedSearch } from './SharedSearch.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * Per station the options that a plan no worse than `ceiling` can contain, were all the others to take their cheapest;
 * cheapest first.
 */
function worthLookingAt({ start, cost, group }: ChoiceProblem, ceiling: number): Int32Array[] {
  const least = new Float64Array(group.length);
  let floor = 0;
  for (let station = 0; station < group.length; station += 1) {
    let best = INFINITY;
    for (let option = start[station]!; option < start[station + 1]!; option += 1) {
      if (cost[option]! < best) best = cost[option]!;
    }
    least[station] = best;
    floor += best;
  }
  return Array.from(group, (_, station) => {
    const most = least[station]! + (ceiling - floor);
    const kept = new Int32Array(start[station + 1]! - start[station]!);
    let count = 0;
    for (let option = start[station]!; option < start[station + 1]!; option += 1) {
      if (cost[option]! > most) continue;
      kept[count] = option;
      count += 1;
    }
    return cheapestFirst(kept.subarray(0, count), cost, least[station]!);
  });
}

/** Options of a station up to which cost and place go into one number. */
const PLACES = 2 ** 20;
const MOST_COST = Number.MAX_SAFE_INTEGER / PLACES - 1;

/**
 * Options in the order of their cost, and of their places where it is the same. As one number each they are sorted without a call for every
 * comparison, which is several times as fast.
 */
function cheapestFirst(options: Int32Array, cost: ArrayLike<number>, least: number): Int32Array {
  const first = options[0] ?? 0;
  const keys = new Float64Array(options.length);
  let isShort = (options.at(-1) ?? 0) - first < PLACES;
  for (let at = 0; at < options.length; at += 1) {
    const more = cost[options[at]!]! - least;
    isShort &&= more < MOST_COST;
    keys[at] = more * PLACES + (options[at]! - first);
  }
  if (!isShort) return options.sort((one, other) => cost[one]! - cost[other]! || one - other);
  keys.sort();
  for (let at = 0; at < keys.length; at += 1) {
    const key = keys[at]!;
    options[at] = first + (key - Math.floor(key / PLACES) * PLACES);
  }
  return options;
}

/** Deviations, nm, that go into one number with what an option uses: up to ±0.5 mm. */
const DEVIATIONS = 2 ** 20;

/**
 * Drops options that can never be better than another of the same station: same use of what can run out, same deviation
 * where a spread counts, no lower cost.
 */
function undominated(problem: ChoiceProblem, kept: readonly Int32Array[], scarce: Uint8Array): Int32Array[] {
  const [first, second, third] = problem.use;
  const base = scarce.length + 1;
  const taken = (resource: number) => (resource >= 0 && scarce[resource] === 1 ? resource + 1 : 0);
  return kept.map((options, station) => {
    const spreadCounts = problem.spread[problem.group[station]!]! < INFINITY;
    const seen = new Set<number | string>();
    const isShort = base ** 3 * DEVIATIONS <= Number.MAX_SAFE_INTEGER;
    return options.filter((option) => {
      const a = taken(first[option]!);
      const b = taken(second[option]!);
      const c = taken(third[option]!);
      // Halves and housing tell such options apart: there is nothing to compare.
      if (a > 0 && b > 0 && c > 0) return true;
      const key = (a * base + b) * base + c;
      const deviation = problem.deviation[option]!;
      const isNear = isShort && Math.abs(deviation) < DEVIATIONS / 2;
      const place = !spreadCounts
        ? key
        : isNear
          ? key * DEVIATIONS + deviation + DEVIATIONS / 2
          : `${key}|${deviation}`;
      if (seen.has(place)) return false;
      seen.add(place);
      return true;
    });
  });
}

/** Marks the resources whose capacity could be exceeded by some choice. */
function scarceResources({ use, capacity }: ChoiceProblem, kept: readonly Int32Array[]): Uint8Array {
  const [first, second, third] = use;
  const demand = new Float64Array(capacity.length);
  const most = new Uint8Array(capacity.length);
  const touched = new Int32Array(capacity.length);
  let count = 0;
  const touch = (resource: number, times: number) => {
    if (resource < 0) return;
    if (most[resource] === 0) {
      touched[count] = resource;
      count += 1;
    }
    if (most[resource]! < times) most[resource] = times;
  };
  for (const options of kept) {
    count = 0;
    for (const option of options) {
      const a = first[option]!;
      const b = second[option]!;
      touch(a, a === b ? 2 : 1);
      touch(b, 1);
      touch(third[option]!, 1);
    }
    for (let at = 0; at < count; at += 1) {
      demand[touched[at]!]! += most[touched[at]!]!;
      most[touched[at]!] = 0;
    }
  }
  return Uint8Array.from(capacity, (limit, resource) => (demand[resource]! > limit ? 1 : 0));
}

/** Groups of stations that share a scarce resource or a limited spread; each group can be solved alone. */
function components(problem: ChoiceProblem, kept: readonly Int32Array[], scarce: Uint8Array): number[][] {
  const parent = kept.map((_, at) => at);
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
  kept.forEach((options, station) => {
    const group = problem.group[station]!;
    if (problem.spread[group]! < INFINITY) join(groupUser, group, station);
    for (const use of problem.use) {
      for (const option of options) {
        const resource = use[option]!;
        if (resource >= 0 && scarce[resource] === 1) join(resourceUser, resource, station);
      }
    }
  });
  const members = new Map<number, number[]>();
  kept.forEach((_, station) => {
    const root = rootOf(station);
    const list = members.get(root);
    if (list) list.push(station);
    else members.set(root, [station]);
  });
  return [...members.values()];
}

/**
 * Looks at each kind of resource alone (uppers, lowers, housings): if they cannot even be shared out among the stations,
 * nothing fits. Stations with an option that uses nothing scarce there do not count.
 */
function isPlainlyShort(problem: ChoiceProblem, kept: readonly Int32Array[], scarce: Uint8Array): boolean {
  return problem.use.some((use) => {
    const isBound = (option: number) => use[option]! >= 0 && scarce[use[option]!] === 1;
    const bound = kept.filter((options) => options.every(isBound));
    return !coversAll(
      bound.map((options) => new Set(Array.from(options, (option) => use[option]!))),
      problem.capacity,
    );
  });
}

/** The cheapest option of a station that shares nothing with another one; null when none can be served at all. */
function cheapestAlone({ use, capacity }: ChoiceProblem, kept: Int32Array): number | null {
  const [first, second, third] = use;
  const isServed = (option: number) => {
    const [a, b, c] = [first[option]!, second[option]!, third[option]!];
    return !(
      (a >= 0 && capacity[a]! < (a === b ? 2 : 1)) ||
      (b >= 0 && capacity[b]! < 1) ||
      (c >= 0 && capacity[c]! < 1)
    );
  };
  return kept.find(isServed) ?? null;
}

/** From this many stations in one part on, its engines are priced against each other instead of searched station by station. */
const SHARED_FROM = 30;
/** From so many on that is tried once a quick search has not settled it: free housings are then matched exactly at each price. */
const BLOCKS_FROM = 13;

interface PartAnswer {
  readonly cost: number;
  readonly bound: number;
  /** Per station its option. */
  readonly options: Iterable<readonly [number, number]>;
  readonly prices: readonly (readonly [number, number])[];
}

/** Solves the stations of one part. */
function solvePart(
  problem: ChoiceProblem,
  members: readonly number[],
  kept: readonly Int32Array[],
  scarce: Uint8Array,
  limits: ChoiceLimits,
): PartAnswer | 'infeasible' | Unanswered {
  if (members.length === 1) {
    const [station] = members;
    const alone = cheapestAlone(problem, kept[station!]!);
    const cost = alone === null ? 0 : problem.cost[alone]!;
    return alone === null ? 'infeasible' : { cost, bound: cost, options: [[station!, alone]], prices: [] };
  }
  const shared = () => new SharedSearch(problem, blockClasses(problem, members, kept, scarce), scarce, limits).solve();
  if (members.length >= SHARED_FROM) {
    const found = shared();
    if (found !== null) return found;
  }
  const search = new ComponentSearch(problem, members, kept, scarce, limits);
  search.begin();
  if (!search.isDone && limits.solver && members.length >= BLOCKS_FROM && members.length < SHARED_FROM) {
    const found = shared();
    if (found === 'infeasible' || (found !== null && found.bound === found.cost)) return found;
  }
  const found = search.finish();
  if (found === 'infeasible' || !('path' in found)) return found;
  return { ...found, options: members.map((station, at) => [station, found.path[at]!] as const) };
}

/**
 * Chooses one option a station at least total cost, so that no resource is taken more often than its capacity and no
 * group spreads further than allowed. Splits into parts that share nothing; small parts by branch and bound over whole-number
 * costs with a Lagrangian bound on the resources, large ones by pricing the halves between blocks of stations.
 * Deterministic.
 *
 * @returns the least cost and a choice that has it, or that there is none, proven. Ended by its limits, or too much for the own
 *   search and without an integer solver: a choice with a bound, or the bound alone
 */
export function leastChoice(problem: ChoiceProblem, limits: ChoiceLimits = {}): ChoiceAnswer {
  const { start, group, capacity } = problem;
  for (let station = 0; station < group.length; station += 1) {
    if (start[station] === start[station + 1]) return { status: 'infeasible' };
  }
  const ceiling = greedyPlan(problem)?.cost ?? INFINITY;
  const worth = worthLookingAt(problem, ceiling);
  const scarce = scarceResources(problem, worth);
  if (ceiling === INFINITY && isPlainlyShort(problem, worth, scarce)) return { status: 'infeasible' };
  const kept = undominated(problem, worth, scarce);
  const chosen = new Int32Array(group.length).fill(-1);
  const prices = new Float64Array(capacity.length);
  let cost = 0;
  let bound = 0;
  let isUnanswered = false;
  // Small parts first: one that cannot be served settles it all.
  for (const members of components(problem, kept, scarce).sort((a, b) => a.length - b.length)) {
    const found = solvePart(problem, members, kept, scarce, limits);
    if (found === 'infeasible') return { status: 'infeasible' };
    bound += found.bound;
    if (!('cost' in found)) {
      isUnanswered = true;
      continue;
    }
    cost += found.cost;
    for (const [station, option] of found.options) chosen[station] = option;
    for (const [resource, price] of found.prices) prices[resource] = price;
  }
  if (isUnanswered) return { status: 'stopped', bound };
  return { status: bound < cost ? 'feasible' : 'optimal', cost, bound, chosen, prices };
}
