import type { ChoiceProblem } from '../model/choice.js';
import { COST_PER_UM2 } from '../model/fitModel.js';
import { type ChoiceLimits, hasEnded, spend } from './choiceLimits.js';
import { greatestCommonDivisor } from './greatestCommonDivisor.js';
import { type LayeredPart, LayerSearch } from './LayerSearch.js';
import { partProgramme } from './partProgramme.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * The stages of price ascent, each followed by dropping options and a short dive: rounds, rounds without a better bound after
 * which the step is halved, the smallest step. Most parts are settled by the first.
 */
const ASCENTS = [
  { rounds: 80, patience: 6, leastStep: 0.02 },
  { rounds: 300, patience: 12, leastStep: 0.01 },
  { rounds: 1500, patience: 25, leastStep: 0.001 },
] as const;
/** How strongly the ascent turns away from going back; 1 to 2. */
const DEFLECTION = 1.5;
type Ascent = (typeof ASCENTS)[number];
/** The deep dive ends after so many nodes; where there is no integer solver to go on, after so many. */
const DEEP_NODES = 2_000;
const LONGEST_NODES = 3_000_000;
/** Stations up to which the search by layers mostly succeeds; its steps for so few, and for more, where the solver can go on. */
const FEW_STATIONS = 12;
const STEPS_FOR_FEW = 1_500_000;
const STEPS_FOR_MANY = 200_000;
/** Its steps where there is no integer solver to go on. */
const LONGEST_STEPS = 3_000_000;
/** The integer solver branches at most so often. */
const SOLVER_NODES = 1_000_000;
/** From this many nodes on, states are remembered: before that it costs more than it saves. */
const MEMO_FROM = 300;
const MEMO_STATIONS = 40;
/** Nodes, and rounds of the ascent, between two questions whether to stop. */
const STOP_EVERY = 1024;
const ASK_EVERY = 32;
const MEMO_ENTRIES = 400_000;
/** Steps of work (see `WorkMeter`) per option in a round of the ascent, and per station in a node of the search. */
const STEPS_OF_A_ROUND = 4;
const STEPS_OF_A_NODE = 60;

export interface ComponentAnswer {
  readonly cost: number;
  readonly bound: number;
  /** Per member its option. */
  readonly path: readonly number[];
  /** Scarce resources with their price in cost units. */
  readonly prices: readonly (readonly [number, number])[];
}

/** What a search knows that ended with neither a plan nor a proof that there is none. */
export interface Unanswered {
  /** No plan costs less than this. */
  readonly bound: number;
}

/**
 * Exact search of one part of a choice problem whose stations share scarce resources or a limited spread.
 *
 * A short dive gives a first plan; prices for the scarce resources, by subgradient ascent of the Lagrangian dual (Held,
 * Wolfe and Crowder, Mathematical Programming 6, 1974; cited from memory), give a bound; options that cannot be part of a
 * better plan are dropped by their reduced cost; a depth-first search settles the rest. It has a budget of work: past it come the
 * search by layers, and past that the integer solver. Prices and costs are whole
 * numbers, so every bound is exact, and costs are multiples of a grain, so a bound within a grain of the best plan
 * proves it.
 */
export class ComponentSearch {
  private readonly count: number;
  /** Per option, flat: its position in the whole problem, cost, deviation and up to three scarce resources (or −1). */
  private readonly origin: Int32Array;
  private readonly cost: Float64Array;
  private readonly reduced: Float64Array;
  private readonly deviation: Float64Array;
  private readonly use: readonly [Int32Array, Int32Array, Int32Array];
  /** Per station its options still in play, cheapest reduced cost first. */
  private alive: Int32Array[];
  private readonly scarce: readonly number[];
  private readonly remaining: Float64Array;
  private readonly prices: Float64Array;
  private readonly groupOf: Int32Array;
  private readonly spread: Float64Array;
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly open: Uint8Array;
  private readonly path: Int32Array;
  private readonly grain: number;
  private best = INFINITY;
  private bestPath: Int32Array | null = null;
  private memo: Map<string, number> | null = null;
  private nodes = 0;
  private readonly limits: ChoiceLimits;
  private bound = 0;
  private nodeLimit = 0;

  /**
   * @param members the stations of this part
   * @param kept per station of the whole problem its options worth looking at, cheapest first
   * @param scarceMarks 1 for every resource that can run out
   */
  constructor(
    problem: ChoiceProblem,
    members: readonly number[],
    kept: readonly Int32Array[],
    scarceMarks: Uint8Array,
    limits: ChoiceLimits,
  ) {
    this.limits = limits;
    this.count = members.length;
    const total = members.reduce((sum, station) => sum + kept[station]!.length, 0);
    this.origin = new Int32Array(total);
    this.cost = new Float64Array(total);
    this.reduced = new Float64Array(total);
    this.deviation = new Float64Array(total);
    this.use = [new Int32Array(total).fill(-1), new Int32Array(total).fill(-1), new Int32Array(total).fill(-1)];
    this.alive = [];
    const scarce = new Set<number>();
    let at = 0;
    let grain = 0;
    for (const station of members) {
      const first = at;
      for (const option of kept[station]!) {
        const cost = problem.cost[option]!;
        this.origin[at] = option;
        this.cost[at] = cost;
        this.reduced[at] = cost;
        this.deviation[at] = problem.deviation[option]!;
        for (let place = 0; place < 3; place += 1) {
          const resource = problem.use[place as 0 | 1 | 2][option]!;
          if (resource < 0 || scarceMarks[resource] === 0) continue;
          this.use[place as 0 | 1 | 2][at] = resource;
          scarce.add(resource);
        }
        // Costs are whole and below 2^53: their quotient is whole only where it is so exactly.
        if (grain === 0 || !Number.isInteger(cost / grain)) grain = greatestCommonDivisor(grain, cost);
        at += 1;
      }
      this.alive.push(Int32Array.from({ length: at - first }, (_, offset) => first + offset));
    }
    this.grain = grain || 1;
    this.scarce = [...scarce].sort((a, b) => a - b);
    this.remaining = problem.capacity.slice();
    this.prices = new Float64Array(problem.capacity.length);
    this.groupOf = Int32Array.from(members, (station) => problem.group[station]!);
    this.spread = problem.spread;
    this.low = new Float64Array(problem.spread.length).fill(INFINITY);
    this.high = new Float64Array(problem.spread.length).fill(-INFINITY);
    this.open = new Uint8Array(this.count).fill(1);
    this.path = new Int32Array(this.count);
  }

  /** Whether there is nothing left to find out, or no time. */
  get isDone(): boolean {
    return this.isSettled() || this.isEmpty() || hasEnded(this.limits);
  }

  /** The quick part: dives, prices, and one deeper dive. Settles most. */
  begin(): void {
    if (this.isEmpty()) return;
    // Above the cost of any plan; well above, so that prices in whole cost units are fine enough where nothing costs anything.
    const ceiling = this.alive.reduce((sum, options) => sum + this.cost[options.at(-1)!]!, 0) + COST_PER_UM2;
    const floor = this.alive.reduce((sum, options) => sum + this.cost[options[0]!]!, 0);
    this.bound = floor;
    this.dive(3 * this.count, 0);
    this.exchange();
    this.drop(floor);
    for (const ascent of ASCENTS) {
      if (this.isDone) return;
      this.raise(this.ascend(Math.min(this.best, ceiling), ascent), ceiling);
      if (this.isSettled()) return;
      this.drop(this.bound);
      if (this.isEmpty()) return;
      if (this.dive(12 * this.count, this.rent())) this.raise(INFINITY, ceiling);
      else if (this.exchange()) this.drop(this.bound);
    }
    if (!this.isDone) this.diveDeep();
  }

  /**
   * What `begin` left open: by layers, then by the integer solver.
   *
   * @returns the least cost and each member's option, that nothing fits, or what is proven where neither was found within the
   *   limits
   */
  finish(): ComponentAnswer | 'infeasible' | Unanswered {
    if (!this.isDone) this.goThroughLayers();
    if (!this.isDone) this.askSolver();
    const isProven = this.isSettled() || this.isEmpty();
    if (!this.bestPath) return isProven ? 'infeasible' : { bound: this.bound };
    return {
      cost: this.best,
      bound: isProven ? this.best : this.bound,
      path: Array.from(this.bestPath, (option) => this.origin[option]!),
      prices: this.scarce.map((resource) => [resource, this.prices[resource]!]),
    };
  }

  /** Takes note of a proven bound; from the ceiling on it says that nothing fits. */
  private raise(bound: number, ceiling = INFINITY): void {
    if (bound > this.bound) this.bound = bound >= ceiling ? INFINITY : bound;
  }

  /** Whether no plan can be cheaper than the best one, or there is none at all. */
  private isSettled(): boolean {
    return this.bound === INFINITY || this.isProven(this.bound);
  }

  /** Whether a station has no option left that a cheaper plan could contain. */
  private isEmpty(): boolean {
    return this.alive.some((options) => options.length === 0);
  }

  /** Depth-first with remembered states: quickest where the prices nearly settle it. */
  private diveDeep(): void {
    this.memo = this.count <= MEMO_STATIONS ? new Map() : null;
    if (this.dive(this.limits.solver ? DEEP_NODES : LONGEST_NODES, this.rent())) this.raise(INFINITY);
    this.memo = null;
  }

  private goThroughLayers(): void {
    this.drop(this.bound);
    if (this.isEmpty()) return;
    const part = { ...this.layered(), alive: this.alive };
    const steps = this.count <= FEW_STATIONS ? STEPS_FOR_FEW : STEPS_FOR_MANY;
    const answer = new LayerSearch(part, this.best, this.limits.solver ? steps : LONGEST_STEPS, this.limits).solve();
    if (answer.status === 'too many') return;
    if (answer.status === 'found') {
      this.best = answer.cost;
      this.bestPath = answer.path;
    }
    this.raise(INFINITY);
  }

  private layered(): Omit<LayeredPart, 'alive'> {
    const { cost, reduced, deviation, use, scarce, prices, groupOf, spread, grain } = this;
    return { cost, reduced, deviation, use, scarce, capacity: this.remaining, prices, groupOf, spread, grain };
  }

  /** Hands what could still be better to the integer solver. */
  private askSolver(): void {
    const { solver } = this.limits;
    if (!solver) return;
    this.report();
    this.drop(this.bound);
    if (this.isEmpty()) return;
    const written = partProgramme({ ...this.layered(), alive: this.alive });
    const gap = this.grain / 2 / COST_PER_UM2;
    const answer = solver({ programme: written.programme, gap, nodes: SOLVER_NODES }, this.limits);
    if (answer.status === 'infeasible') {
      this.raise(INFINITY);
      return;
    }
    if (answer.status !== 'unknown') {
      const path = written.pathOf(answer.counts);
      const cost = path.reduce((sum, option) => sum + this.cost[option]!, 0);
      if (cost < this.best) {
        this.best = cost;
        this.bestPath = path;
      }
    }
    if (answer.status === 'optimal') this.raise(INFINITY);
    else this.raise(Math.ceil(answer.bound * COST_PER_UM2 - this.grain / 2));
  }

  private report(): void {
    const cost = this.bestPath === null ? null : this.best / COST_PER_UM2;
    this.limits.onProgress?.({ doing: 'searching', cost, bound: this.bound / COST_PER_UM2 });
  }

  /** No plan can beat the best one: the next cheaper cost would be a whole grain below it. */
  private isProven(bound: number): boolean {
    return bound > this.best - this.grain;
  }

  /** Price of all that there is of the scarce resources: what the bound gives back. */
  private rent(): number {
    let rent = 0;
    for (const resource of this.scarce) rent += this.prices[resource]! * this.remaining[resource]!;
    return rent;
  }

  /** Searches from the top for at most so many nodes. @returns whether it looked at everything */
  private dive(nodeLimit: number, rent: number): boolean {
    this.nodes = 0;
    this.nodeLimit = nodeLimit;
    this.descend(this.count, 0, rent);
    return this.nodes <= this.nodeLimit;
  }

  /**
   * Improves the best plan by taking the options of two stations out and putting the cheapest two back that fit, until no
   * pair of stations gains.
   *
   * @returns whether the plan became cheaper
   */
  private exchange(): boolean {
    const path = this.bestPath;
    if (!path) return false;
    const before = this.best;
    for (let station = 0; station < this.count; station += 1) this.take(path[station]!, 1);
    for (let gained = true; gained; ) {
      gained = false;
      for (let one = 0; one < this.count; one += 1) {
        for (let other = one + 1; other < this.count; other += 1)
          gained = this.exchangePair(path, one, other) || gained;
      }
    }
    for (let station = 0; station < this.count; station += 1) this.take(path[station]!, -1);
    return this.best < before;
  }

  private exchangePair(path: Int32Array, one: number, other: number): boolean {
    const { cost } = this;
    const present = cost[path[one]!]! + cost[path[other]!]!;
    let best = present;
    let pick: [number, number] | null = null;
    this.take(path[one]!, -1);
    this.take(path[other]!, -1);
    for (const first of this.alive[one]!) {
      if (cost[first]! >= best || !this.isFree(first)) continue;
      this.take(first, 1);
      for (const second of this.alive[other]!) {
        const sum = cost[first]! + cost[second]!;
        if (sum < best && this.isFree(second) && this.isEven(path, one, first, other, second)) {
          best = sum;
          pick = [first, second];
        }
      }
      this.take(first, -1);
    }
    if (pick) [path[one], path[other]] = pick;
    this.take(path[one]!, 1);
    this.take(path[other]!, 1);
    this.best += best - present;
    return pick !== null;
  }

  /** Whether the plan keeps its spread when two of its stations change. */
  private isEven(path: Int32Array, one: number, first: number, other: number, second: number): boolean {
    for (const group of new Set([this.groupOf[one]!, this.groupOf[other]!])) {
      if (this.spread[group] === INFINITY) continue;
      let low = INFINITY;
      let high = -INFINITY;
      for (let station = 0; station < this.count; station += 1) {
        if (this.groupOf[station] !== group) continue;
        const option = station === one ? first : station === other ? second : path[station]!;
        low = Math.min(low, this.deviation[option]!);
        high = Math.max(high, this.deviation[option]!);
      }
      if (high - low > this.spread[group]!) return false;
    }
    return true;
  }

  /** Drops options that no better plan can contain, judged by reduced cost against `bound`. @returns `bound` */
  private drop(bound: number): number {
    if (this.best === INFINITY) return bound;
    const { reduced } = this;
    this.alive = this.alive.map((options) => {
      const least = options.length > 0 ? reduced[options[0]!]! : 0;
      return options.filter((option) => !this.isProven(bound - least + reduced[option]!));
    });
    return bound;
  }

  /**
   * Raises the prices of what is over-used and lowers those of what is left over, towards the target.
   *
   * @returns the best bound found; prices, reduced costs and the order of options are left at it
   */
  private ascend(target: number, { rounds, patience, leastStep }: Ascent): number {
    const { scarce, remaining } = this;
    const { start, cost, first, second, third } = this.byCost();
    // One price more, always 0, for what takes no scarce resource.
    const prices = new Float64Array(this.prices.length + 1);
    prices.set(this.prices);
    const bestPrices = prices.slice();
    const excess = new Float64Array(prices.length);
    const direction = new Float64Array(prices.length);
    let best = -INFINITY;
    let step = 1;
    let idle = 0;
    for (let round = 0; round < rounds; round += 1) {
      spend(this.limits, STEPS_OF_A_ROUND * (cost.length + scarce.length));
      if (round % ASK_EVERY === 0 && hasEnded(this.limits)) break;
      let bound = 0;
      for (const resource of scarce) {
        excess[resource] = -remaining[resource]!;
        bound -= prices[resource]! * remaining[resource]!;
      }
      for (let station = 0; station < this.count; station += 1) {
        const end = start[station + 1]!;
        let least = INFINITY;
        let pick = -1;
        // Prices are never below zero: no option that costs more by itself can come below the least so far.
        for (let at = start[station]!; at < end && cost[at]! < least; at += 1) {
          const value = cost[at]! + prices[first[at]!]! + prices[second[at]!]! + prices[third[at]!]!;
          if (value < least) {
            least = value;
            pick = at;
          }
        }
        bound += least;
        excess[first[pick]!]! += 1;
        excess[second[pick]!]! += 1;
        excess[third[pick]!]! += 1;
      }
      if (bound > best) {
        best = bound;
        bestPrices.set(prices);
        idle = 0;
        if (best >= target || this.isProven(best)) break;
      } else {
        idle += 1;
        if (idle >= patience) {
          step /= 2;
          idle = 0;
          if (step < leastStep) break;
        }
      }
      // Deflection (Camerini, Fratta and Maffioli, Mathematical Programming Study 3, 1975; cited from memory): where the new
      // direction points back along the last one, that part is taken out, so that the path does not zigzag.
      let along = 0;
      let lastLength = 0;
      for (const resource of scarce) {
        along += excess[resource]! * direction[resource]!;
        lastLength += direction[resource]! ** 2;
      }
      const deflection = along < 0 && lastLength > 0 ? (-DEFLECTION * along) / lastLength : 0;
      let length = 0;
      for (const resource of scarce) {
        const next = excess[resource]! + deflection * direction[resource]!;
        // A price of zero cannot go down.
        direction[resource] = next < 0 && prices[resource] === 0 ? 0 : next;
        length += direction[resource]! ** 2;
      }
      if (length === 0) break;
      const stride = (step * (target - bound)) / length;
      for (const resource of scarce) {
        prices[resource] = Math.max(0, Math.round(prices[resource]! + stride * direction[resource]!));
      }
    }
    this.prices.set(bestPrices.subarray(0, this.prices.length));
    this.reprice();
    return best;
  }

  /**
   * The options in play side by side, those of a station from `start[station]` on, cheapest first; what takes no scarce resource in a place
   * has one there that is never priced.
   */
  private byCost() {
    let total = 0;
    for (const options of this.alive) total += options.length;
    const unpriced = this.prices.length;
    const start = new Int32Array(this.count + 1);
    const cost = new Float64Array(total);
    const [first, second, third] = [new Int32Array(total), new Int32Array(total), new Int32Array(total)];
    const [a, b, c] = this.use;
    let at = 0;
    for (let station = 0; station < this.count; station += 1) {
      for (const option of this.cheapestFirst(this.alive[station]!)) {
        cost[at] = this.cost[option]!;
        first[at] = a[option]! < 0 ? unpriced : a[option]!;
        second[at] = b[option]! < 0 ? unpriced : b[option]!;
        third[at] = c[option]! < 0 ? unpriced : c[option]!;
        at += 1;
      }
      start[station + 1] = at;
    }
    return { start, cost, first, second, third };
  }

  /** The options of a station by their cost alone: before they are priced they stand so already. */
  private cheapestFirst(options: Int32Array): Int32Array {
    const { cost } = this;
    for (let at = 1; at < options.length; at += 1) {
      if (cost[options[at]!]! >= cost[options[at - 1]!]!) continue;
      return options.slice().sort((one, other) => cost[one]! - cost[other]! || one - other);
    }
    return options;
  }

  /** Works out the reduced costs at the present prices and sorts the options by them. */
  private reprice(): void {
    const { cost, prices, reduced } = this;
    for (const options of this.alive) {
      for (const option of options) {
        let value = cost[option]!;
        for (const use of this.use) if (use[option]! >= 0) value += prices[use[option]!]!;
        reduced[option] = value;
      }
      options.sort((a, b) => reduced[a]! - reduced[b]! || a - b);
    }
  }

  /** Whether enough is left of everything that an option takes. */
  private isFree(option: number): boolean {
    const { remaining } = this;
    const [a, b, c] = [this.use[0][option]!, this.use[1][option]!, this.use[2][option]!];
    // Only the two halves can be of one kind; a housing is always another resource.
    if (a >= 0 && remaining[a]! < (a === b ? 2 : 1)) return false;
    if (b >= 0 && remaining[b]! < 1) return false;
    return c < 0 || remaining[c]! >= 1;
  }

  private fits(station: number, option: number): boolean {
    if (!this.isFree(option)) return false;
    const group = this.groupOf[station]!;
    const spread = this.spread[group]!;
    if (spread === INFINITY) return true;
    const deviation = this.deviation[option]!;
    return Math.max(this.high[group]!, deviation) - Math.min(this.low[group]!, deviation) <= spread;
  }

  private take(option: number, by: 1 | -1): number {
    let freed = 0;
    for (const use of this.use) {
      const resource = use[option]!;
      if (resource < 0) continue;
      this.remaining[resource]! -= by;
      freed += this.prices[resource]!;
    }
    return freed;
  }

  private stateKey(): string {
    let key = this.open.join('');
    for (const resource of this.scarce) key += `,${this.remaining[resource]}`;
    for (let group = 0; group < this.spread.length; group += 1) {
      if (this.spread[group] !== INFINITY) key += `|${this.low[group]}:${this.high[group]}`;
    }
    return key;
  }

  /**
   * @param left stations still open
   * @param cost what the closed ones cost
   * @param rent price of all that is left of the scarce resources
   */
  private descend(left: number, cost: number, rent: number): void {
    if (left === 0) {
      if (cost < this.best) {
        this.best = cost;
        this.bestPath = this.path.slice();
      }
      return;
    }
    this.nodes += 1;
    if (this.nodes > this.nodeLimit) return;
    if (this.nodes % STOP_EVERY === 0) {
      this.report();
      spend(this.limits, STEPS_OF_A_NODE * STOP_EVERY * this.count);
      if (hasEnded(this.limits)) {
        this.nodeLimit = 0;
        return;
      }
    }
    if (this.memo && this.nodes > MEMO_FROM && left < this.count) {
      const key = this.stateKey();
      const reached = this.memo.get(key);
      if (reached !== undefined && reached <= cost) return;
      if (this.memo.size < MEMO_ENTRIES) this.memo.set(key, cost);
    }

    const { reduced } = this;
    let bound = cost - rent;
    let branch = -1;
    let branchLeast = 0;
    let branchRegret = -1;
    for (let station = 0; station < this.count; station += 1) {
      if (this.open[station] === 0) continue;
      const options = this.alive[station]!;
      let least = INFINITY;
      let second = INFINITY;
      for (let at = 0; at < options.length; at += 1) {
        const option = options[at]!;
        if (!this.fits(station, option)) continue;
        if (least === INFINITY) least = reduced[option]!;
        else {
          second = reduced[option]!;
          break;
        }
      }
      if (least === INFINITY) return;
      bound += least;
      if (second - least > branchRegret) {
        branch = station;
        branchLeast = least;
        branchRegret = second - least;
      }
    }
    if (this.isProven(bound)) return;

    const group = this.groupOf[branch]!;
    const low = this.low[group]!;
    const high = this.high[group]!;
    this.open[branch] = 0;
    for (const option of this.alive[branch]!) {
      if (this.isProven(bound - branchLeast + reduced[option]!) || this.nodes > this.nodeLimit) break;
      if (!this.fits(branch, option)) continue;
      const freed = this.take(option, 1);
      this.low[group] = Math.min(low, this.deviation[option]!);
      this.high[group] = Math.max(high, this.deviation[option]!);
      this.path[branch] = option;
      this.descend(left - 1, cost + this.cost[option]!, rent - freed);
      this.take(option, -1);
      this.low[group] = low;
      this.high[group] = high;
    }
    this.open[branch] = 1;
  }
}
