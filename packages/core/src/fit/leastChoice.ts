import { coversAll } from './coversAll.js';

/** One way to serve a station: what it costs, what it takes from the shared resources, where it lies in its group. */
export interface Choice {
  /** Whole cost units. */
  readonly cost: number;
  /** Resources taken, by position; one that is taken twice stands twice. */
  readonly uses: readonly number[];
  /** Deviation from the aim, nm: what the spread of the group is measured on. */
  readonly deviation: number;
}

/** Choose one option a station at least cost, within the capacities and the spread of each group. */
export interface ChoiceProblem {
  /** Per station its options, cheapest first. */
  readonly options: readonly (readonly Choice[])[];
  /** Per resource how often it can be taken; Infinity where it never runs out. */
  readonly capacity: readonly number[];
  /** Per station the group whose spread it counts in. */
  readonly group: readonly number[];
  /** Per group the largest spread allowed, nm, or null. */
  readonly spread: readonly (number | null)[];
}

export type ChoiceAnswer =
  | {
      readonly status: 'optimal';
      readonly cost: number /** Per station the position of its option. */;
      readonly chosen: readonly number[];
    }
  | { readonly status: 'infeasible' };

interface Reduced {
  readonly option: number;
  readonly cost: number;
  readonly reduced: number;
  readonly uses: readonly number[];
  readonly deviation: number;
}

interface Bounds {
  readonly multipliers: Float64Array;
  readonly bound: number;
}

const ASCENT_STEPS = 200;
const MEMO_STATIONS = 30;
const MEMO_ENTRIES = 400_000;

/**
 * Drops options that can never be better than another of the same station: same use of what can run out, same deviation
 * where a spread counts, no lower cost. Returns positions into the station's options.
 */
function undominated(problem: ChoiceProblem, scarce: ReadonlySet<number>): number[][] {
  return problem.options.map((options, station) => {
    const spreadCounts = problem.spread[problem.group[station]!] != null;
    const seen = new Set<string>();
    const kept: number[] = [];
    options.forEach(({ uses, deviation }, at) => {
      const taken = uses.filter((resource) => scarce.has(resource)).sort((a, b) => a - b);
      const key = `${taken.join()}|${spreadCounts ? deviation : ''}`;
      if (seen.has(key)) return;
      seen.add(key);
      kept.push(at);
    });
    return kept;
  });
}

/** Resources whose capacity could be exceeded by some choice. */
function scarceResources(problem: ChoiceProblem): Set<number> {
  const demand = new Float64Array(problem.capacity.length);
  for (const options of problem.options) {
    const most = new Map<number, number>();
    for (const { uses } of options) {
      for (const resource of uses) {
        const count = uses.filter((other) => other === resource).length;
        most.set(resource, Math.max(most.get(resource) ?? 0, count));
      }
    }
    for (const [resource, count] of most) demand[resource]! += count;
  }
  const scarce = new Set<number>();
  problem.capacity.forEach((capacity, resource) => {
    if (demand[resource]! > capacity) scarce.add(resource);
  });
  return scarce;
}

/** Groups of stations that share a scarce resource or a limited spread; each group can be solved alone. */
function components(problem: ChoiceProblem, scarce: ReadonlySet<number>): number[][] {
  const parent = problem.options.map((_, at) => at);
  const rootOf = (at: number): number => {
    let root = at;
    while (parent[root] !== root) root = parent[root]!;
    parent[at] = root;
    return root;
  };
  const firstUser = new Map<string, number>();
  const join = (key: string, station: number) => {
    const other = firstUser.get(key);
    if (other === undefined) firstUser.set(key, station);
    else parent[rootOf(station)] = rootOf(other);
  };
  problem.options.forEach((options, station) => {
    const group = problem.group[station]!;
    if (problem.spread[group] != null) join(`g${group}`, station);
    for (const { uses } of options)
      for (const resource of uses) if (scarce.has(resource)) join(`r${resource}`, station);
  });
  const members = new Map<number, number[]>();
  problem.options.forEach((_, station) => {
    const root = rootOf(station);
    members.set(root, [...(members.get(root) ?? []), station]);
  });
  return [...members.values()];
}

/**
 * Prices for the scarce resources by subgradient ascent of the Lagrangian dual (Held, Wolfe and Crowder, "Validation of
 * subgradient optimization", Mathematical Programming 6, 1974; cited from memory). Prices are whole numbers, so the bound is exact.
 */
function ascend(
  stations: readonly (readonly Reduced[])[],
  capacity: Float64Array,
  scarce: readonly number[],
  target: number,
): Bounds {
  const prices = new Float64Array(capacity.length);
  let best: Bounds = { multipliers: prices.slice(), bound: Number.NEGATIVE_INFINITY };
  let step = 1;
  let idle = 0;
  for (let round = 0; round < ASCENT_STEPS; round += 1) {
    const excess = new Float64Array(capacity.length);
    let bound = 0;
    for (const resource of scarce) {
      excess[resource] = -capacity[resource]!;
      bound -= prices[resource]! * capacity[resource]!;
    }
    for (const options of stations) {
      let least = Number.POSITIVE_INFINITY;
      let pick: Reduced | undefined;
      for (const option of options) {
        if (option.cost >= least) break;
        let reduced = option.cost;
        for (const resource of option.uses) reduced += prices[resource]!;
        if (reduced < least) {
          least = reduced;
          pick = option;
        }
      }
      if (!pick) return { multipliers: prices, bound: Number.POSITIVE_INFINITY };
      bound += least;
      for (const resource of pick.uses) excess[resource]! += 1;
    }
    if (bound > best.bound) {
      best = { multipliers: prices.slice(), bound };
      idle = 0;
    } else {
      idle += 1;
      if (idle >= 8) {
        step /= 2;
        idle = 0;
      }
    }
    if (best.bound >= target) return best;
    let length = 0;
    for (const resource of scarce) {
      if (excess[resource]! > 0 || prices[resource]! > 0) length += excess[resource]! ** 2;
    }
    if (length === 0) return best;
    const stride = (step * (target - bound)) / length;
    for (const resource of scarce) {
      prices[resource] = Math.max(0, Math.round(prices[resource]! + stride * excess[resource]!));
    }
  }
  return best;
}

/** Exact depth-first search of one component, with the Lagrangian bound kept up to date on the way down. */
class ComponentSearch {
  private readonly stations: Reduced[][];
  private readonly remaining: Float64Array;
  private readonly prices: Float64Array;
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly open: boolean[];
  private readonly path: number[];
  private best = Number.POSITIVE_INFINITY;
  private bestPath: number[] | null = null;
  private readonly memo = new Map<string, number>();
  private nodes = 0;
  private nodeLimit = Number.POSITIVE_INFINITY;
  private readonly scarce: number[];
  private readonly members: readonly number[];
  private readonly problem: ChoiceProblem;

  constructor(
    problem: ChoiceProblem,
    members: readonly number[],
    kept: readonly (readonly number[])[],
    scarceSet: ReadonlySet<number>,
  ) {
    this.problem = problem;
    this.members = members;
    this.stations = members.map((station) =>
      kept[station]!.map((option) => {
        const { cost, uses, deviation } = problem.options[station]![option]!;
        const taken = uses.filter((resource) => scarceSet.has(resource));
        return { option, cost, reduced: cost, uses: taken, deviation };
      }),
    );
    const used = new Set(this.stations.flatMap((options) => options.flatMap((option) => option.uses)));
    this.scarce = [...used].sort((a, b) => a - b);
    this.remaining = Float64Array.from(problem.capacity);
    this.prices = new Float64Array(problem.capacity.length);
    this.low = new Float64Array(problem.spread.length).fill(Number.POSITIVE_INFINITY);
    this.high = new Float64Array(problem.spread.length).fill(Number.NEGATIVE_INFINITY);
    this.open = members.map(() => true);
    this.path = members.map(() => -1);
  }

  solve(): { cost: number; path: number[] } | null {
    if (this.stations.some((options) => options.length === 0)) return null;
    const ceiling = this.stations.reduce((sum, options) => sum + options.at(-1)!.cost, 0) + 1;
    // A first plan from a short search gives the ascent its target.
    this.nodeLimit = 60 * this.stations.length;
    this.descend(this.stations.length, 0, 0);
    const exhausted = this.nodes <= this.nodeLimit;
    if (!exhausted) {
      const target = this.bestPath ? this.best : ceiling;
      const { multipliers, bound } = ascend(this.stations, this.remaining, this.scarce, target);
      if (bound < target) {
        for (const resource of this.scarce) this.prices[resource] = multipliers[resource]!;
        for (const options of this.stations) {
          options.forEach((option, at) => {
            const reduced = option.uses.reduce((sum, resource) => sum + this.prices[resource]!, option.cost);
            options[at] = { ...option, reduced };
          });
          options.sort((a, b) => a.reduced - b.reduced || a.option - b.option);
        }
        this.nodes = 0;
        this.nodeLimit = Number.POSITIVE_INFINITY;
        this.memo.clear();
        const rent = this.scarce.reduce((sum, resource) => sum + this.prices[resource]! * this.remaining[resource]!, 0);
        this.descend(this.stations.length, 0, rent);
      }
    }
    return this.bestPath ? { cost: this.best, path: this.bestPath } : null;
  }

  private fits(station: number, option: Reduced): boolean {
    for (const resource of option.uses) {
      let count = 0;
      for (const other of option.uses) if (other === resource) count += 1;
      if (this.remaining[resource]! < count) return false;
    }
    const group = this.problem.group[this.members[station]!]!;
    const spread = this.problem.spread[group];
    if (spread == null) return true;
    const { deviation } = option;
    return Math.max(this.high[group]!, deviation) - Math.min(this.low[group]!, deviation) <= spread;
  }

  private stateKey(): string {
    const windows = this.problem.spread.map((spread, group) =>
      spread == null ? '' : `${this.low[group]}:${this.high[group]}`,
    );
    return `${this.open.map(Number).join('')}|${this.scarce.map((resource) => this.remaining[resource]).join()}|${windows.join()}`;
  }

  /**
   * @param left stations still open
   * @param cost what the closed ones cost
   * @param rent price of all that is left of the scarce resources: what the bound gives back
   */
  private descend(left: number, cost: number, rent: number): void {
    if (left === 0) {
      if (cost < this.best) {
        this.best = cost;
        this.bestPath = [...this.path];
      }
      return;
    }
    this.nodes += 1;
    if (this.nodes > this.nodeLimit) return;
    if (this.members.length <= MEMO_STATIONS && left < this.members.length) {
      const key = this.stateKey();
      const reached = this.memo.get(key);
      if (reached !== undefined && reached <= cost) return;
      if (this.memo.size < MEMO_ENTRIES) this.memo.set(key, cost);
    }

    let bound = cost - rent;
    let branch = -1;
    let branchLeast = 0;
    let branchRegret = -1;
    for (let station = 0; station < this.stations.length; station += 1) {
      if (!this.open[station]) continue;
      let least = Number.POSITIVE_INFINITY;
      let second = Number.POSITIVE_INFINITY;
      for (const option of this.stations[station]!) {
        if (!this.fits(station, option)) continue;
        if (least === Number.POSITIVE_INFINITY) least = option.reduced;
        else {
          second = option.reduced;
          break;
        }
      }
      if (least === Number.POSITIVE_INFINITY) return;
      bound += least;
      const regret = second - least;
      if (regret > branchRegret) {
        branch = station;
        branchLeast = least;
        branchRegret = regret;
      }
    }
    if (bound >= this.best) return;

    const group = this.problem.group[this.members[branch]!]!;
    const low = this.low[group]!;
    const high = this.high[group]!;
    this.open[branch] = false;
    for (const option of this.stations[branch]!) {
      if (bound - branchLeast + option.reduced >= this.best || this.nodes > this.nodeLimit) break;
      if (!this.fits(branch, option)) continue;
      let freed = 0;
      for (const resource of option.uses) {
        this.remaining[resource]! -= 1;
        freed += this.prices[resource]!;
      }
      this.low[group] = Math.min(low, option.deviation);
      this.high[group] = Math.max(high, option.deviation);
      this.path[branch] = option.option;
      this.descend(left - 1, cost + option.cost, rent - freed);
      for (const resource of option.uses) this.remaining[resource]! += 1;
      this.low[group] = low;
      this.high[group] = high;
    }
    this.open[branch] = true;
  }
}

/**
 * Looks at each position of `uses` alone (uppers, lowers, housings): if its resources cannot even be shared out among the
 * stations, nothing fits. Options that use nothing scarce there do not count.
 */
function isPlainlyShort(problem: ChoiceProblem, scarce: ReadonlySet<number>): boolean {
  const positions = problem.options.reduce(
    (most, options) => options.reduce((longest, { uses }) => Math.max(longest, uses.length), most),
    0,
  );
  for (let position = 0; position < positions; position += 1) {
    const bound = problem.options.filter((options) => options.every(({ uses }) => scarce.has(uses[position] ?? -1)));
    const accepts = bound.map((options) => new Set(options.map(({ uses }) => uses[position]!)));
    if (!coversAll(accepts, problem.capacity)) return true;
  }
  return false;
}

/**
 * Chooses one option a station at least total cost, so that no resource is taken more often than its capacity and no
 * group spreads further than allowed. Exact: branch and bound over whole-number costs with a Lagrangian bound on the
 * resources, after splitting into parts that share nothing. Deterministic.
 *
 * @returns the least cost and a choice that has it, or that there is none; both proven
 */
export function leastChoice(problem: ChoiceProblem): ChoiceAnswer {
  const scarce = scarceResources(problem);
  const kept = undominated(problem, scarce);
  if (isPlainlyShort(problem, scarce)) return { status: 'infeasible' };
  const chosen = problem.options.map(() => -1);
  let cost = 0;
  for (const members of components(problem, scarce)) {
    const found = new ComponentSearch(problem, members, kept, scarce).solve();
    if (!found) return { status: 'infeasible' };
    cost += found.cost;
    members.forEach((station, at) => {
      chosen[station] = found.path[at]!;
    });
  }
  return { status: 'optimal', cost, chosen };
}
