import { type ChoiceLimits, hasEnded, spend } from './choiceLimits.js';
import { StateTable } from './StateTable.js';

const INFINITY = Number.POSITIVE_INFINITY;
/** States between two questions whether to stop. */
const ASK_EVERY = 512;

/** What one part of a choice problem is made of, option by option in flat arrays. */
export interface LayeredPart {
  /** Per station its options, cheapest reduced cost first. */
  readonly alive: readonly Int32Array[];
  readonly cost: Float64Array;
  /** Cost plus the prices of what an option takes. */
  readonly reduced: Float64Array;
  readonly deviation: Float64Array;
  /** Up to three scarce resources an option takes, −1 for none. */
  readonly use: readonly [Int32Array, Int32Array, Int32Array];
  readonly scarce: readonly number[];
  readonly capacity: Float64Array;
  readonly prices: Float64Array;
  /** Per station the group whose spread it counts in, and per group how far that may be. */
  readonly groupOf: Int32Array;
  readonly spread: Float64Array;
  /** Costs are multiples of it. */
  readonly grain: number;
}

export type LayerAnswer =
  /** Cheaper than what was to be beaten, and the cheapest of all. */
  | { readonly status: 'found'; readonly cost: number; readonly path: Int32Array }
  | { readonly status: 'nothing cheaper' }
  /** There are too many states to keep, or the caller wants what there is. */
  | { readonly status: 'too many' };

/** Keys of states are whole numbers and stay exact up to here. */
const LARGEST_KEY = 2 ** 52;

/** The options of a station, side by side, with the digits of what they take; the digit after the last where they take nothing scarce. */
interface Step {
  readonly options: Int32Array;
  readonly cost: Float64Array;
  readonly reduced: Float64Array;
  readonly first: Int32Array;
  readonly second: Int32Array;
  readonly third: Int32Array;
}

/** A resource as a digit of a state's key. */
interface Digit {
  readonly resource: number;
  readonly weight: number;
  readonly radix: number;
  /** What the stations from each layer on can take at most: more than that left over makes no difference. */
  readonly demand: Int32Array;
}

/** More than any option takes. */
const ENOUGH = 4;

/** Steps of work (see `WorkMeter`) from one state to the next. */
const STEPS_OF_A_STATE = 40;

/**
 * Searches one part station by station, keeping each distinct state of what is left over once, with its least cost (dynamic
 * programming; Bellman 1957, cited from memory). States that cannot lead below `best` are dropped by the price bound.
 * Exact; the work is bounded by `mostSteps`. Where a spread is limited, once for each window of deviations that could hold the
 * least cost.
 */
export class LayerSearch {
  private readonly part: LayeredPart;
  private readonly digits: Digit[] = [];
  private readonly digitOf: Int32Array;
  /** Of each digit its weight, and the price of what it counts; one more of no weight, for what is not scarce. */
  private readonly weights: Float64Array;
  private readonly prices: Float64Array;
  private readonly order: number[];
  private readonly isFitting: boolean;
  private steps = 0;
  private readonly mostSteps: number;
  private readonly limits: ChoiceLimits;
  private best: number;

  /**
   * @param best cost to be beaten; Infinity for any
   * @param mostSteps steps from state to state, at most
   */
  constructor(part: LayeredPart, best: number, mostSteps: number, limits: ChoiceLimits) {
    this.part = part;
    this.limits = limits;
    this.best = best;
    this.mostSteps = mostSteps;
    const { alive, groupOf } = part;
    this.order = alive
      .map((_, station) => station)
      .sort((a, b) => groupOf[a]! - groupOf[b]! || alive[a]!.length - alive[b]!.length || a - b);
    this.digitOf = new Int32Array(part.capacity.length).fill(-1);
    this.isFitting = this.layOut();
    const ofDigits = (of: (digit: Digit) => number) => Float64Array.of(...this.digits.map(of), 0);
    this.weights = ofDigits(({ weight }) => weight);
    this.prices = ofDigits(({ resource }) => part.prices[resource]!);
  }

  /** Gives each resource its digit. @returns true if the keys stay exact */
  private layOut(): boolean {
    const { part, order } = this;
    const demands = new Map(part.scarce.map((resource) => [resource, new Int32Array(order.length + 1)]));
    for (let layer = order.length - 1; layer >= 0; layer -= 1) {
      for (const demand of demands.values()) demand[layer] = demand[layer + 1]!;
      const most = new Map<number, number>();
      for (const option of part.alive[order[layer]!]!) {
        const [a, b, c] = this.usesOf(option);
        if (a >= 0) most.set(a, a === b ? 2 : Math.max(most.get(a) ?? 0, 1));
        if (b >= 0) most.set(b, Math.max(most.get(b) ?? 0, 1));
        if (c >= 0) most.set(c, 1);
      }
      for (const [resource, times] of most) demands.get(resource)![layer]! += times;
    }
    let weight = 1;
    for (const [resource, demand] of demands) {
      const most = Math.min(part.capacity[resource]!, demand[0]!);
      this.digitOf[resource] = this.digits.push({ resource, weight, radix: most + 1, demand }) - 1;
      weight *= most + 1;
      if (weight > LARGEST_KEY) return false;
    }
    return true;
  }

  private usesOf(option: number): [number, number, number] {
    const [first, second, third] = this.part.use;
    return [first[option]!, second[option]!, third[option]!];
  }

  solve(): LayerAnswer {
    if (!this.isFitting) return { status: 'too many' };
    const { part } = this;
    const limited = new Set([...part.groupOf].filter((group) => part.spread[group]! < INFINITY));
    if (limited.size > 1) return { status: 'too many' };
    const [group] = limited;
    if (group === undefined) return this.answer(this.within(part.alive));
    return this.answer(this.throughWindows(group));
  }

  private answer(path: Int32Array | 'too many' | null): LayerAnswer {
    if (path === 'too many') return { status: 'too many' };
    return path === null ? { status: 'nothing cheaper' } : { status: 'found', cost: this.best, path };
  }

  /** The best of all windows of deviations as wide as the spread, those of the least bound first. */
  private throughWindows(group: number): Int32Array | 'too many' | null {
    const { part } = this;
    const width = part.spread[group]!;
    const deviations = new Set<number>();
    for (const [station, options] of part.alive.entries()) {
      if (part.groupOf[station] !== group) continue;
      for (const option of options) deviations.add(part.deviation[option]!);
    }
    const rent = this.rentOf(part.scarce.map((resource) => part.capacity[resource]!));
    const windows = [...deviations]
      .map((low) => {
        const alive = part.alive.map((options, station) =>
          part.groupOf[station] !== group
            ? options
            : options.filter((option) => part.deviation[option]! >= low && part.deviation[option]! <= low + width),
        );
        const least = alive.reduce(
          (sum, options) => sum + (options.length === 0 ? INFINITY : part.reduced[options[0]!]!),
          -rent,
        );
        return { low, alive, least };
      })
      .filter(({ least }) => least < INFINITY)
      .sort((a, b) => a.least - b.least || a.low - b.low);
    let found: Int32Array | null = null;
    for (const { alive, least } of windows) {
      if (this.isNoBetter(least)) break;
      const path = this.within(alive);
      if (path === 'too many') return path;
      found = path ?? found;
    }
    return found;
  }

  private rentOf(left: readonly number[]): number {
    return this.part.scarce.reduce((sum, resource, at) => sum + this.part.prices[resource]! * left[at]!, 0);
  }

  private isNoBetter(bound: number): boolean {
    return bound > this.best - this.part.grain;
  }

  /** The cheapest path through the layers, if it is below `best`, which it then becomes. */
  private within(alive: readonly Int32Array[]): Int32Array | 'too many' | null {
    const { part, order, digits } = this;
    const rest = new Float64Array(order.length + 1);
    for (let layer = order.length - 1; layer >= 0; layer -= 1) {
      const options = alive[order[layer]!]!;
      if (options.length === 0) return null;
      rest[layer] = rest[layer + 1]! + part.reduced[options[0]!]!;
    }
    let start = 0;
    for (const { weight, radix } of digits) start += weight * (radix - 1);
    const first = new StateTable();
    first.reach(start, 0, -1, -1);
    const layers = [first];
    // One digit more, of which there is always enough.
    const left = new Int32Array(digits.length + 1);
    left[digits.length] = ENOUGH;
    for (let layer = 0; layer < order.length; layer += 1) {
      const next = new StateTable();
      const falling = digits.flatMap(({ demand, radix }, at) =>
        demand[layer + 1]! < Math.min(demand[layer]!, radix - 1) ? [at] : [],
      );
      const step = this.stepOf(alive[order[layer]!]!);
      const here = layers[layer]!;
      // Prices cut off some of these steps, hardly ever most of them.
      if (this.steps + (here.size * step.options.length) / 4 > this.mostSteps) return 'too many';
      for (let state = 0; state < here.size; state += 1) {
        const before = this.steps;
        this.expand(here, state, step, rest[layer + 1]!, left, falling, layer + 1, next);
        spend(this.limits, STEPS_OF_A_STATE * (this.steps - before + digits.length));
        if (this.steps > this.mostSteps || (state % ASK_EVERY === 0 && hasEnded(this.limits))) return 'too many';
      }
      layers.push(next);
    }
    const last = layers.at(-1)!;
    if (last.size === 0) return null;
    let at = 0;
    for (let state = 1; state < last.size; state += 1) if (last.cost[state]! < last.cost[at]!) at = state;
    if (!(last.cost[at]! < this.best)) return null;
    this.best = last.cost[at]!;
    const path = new Int32Array(order.length);
    for (let layer = order.length; layer > 0; layer -= 1) {
      path[order[layer - 1]!] = layers[layer]!.option[at]!;
      at = layers[layer]!.from[at]!;
    }
    return path;
  }

  private stepOf(options: Int32Array): Step {
    const { part, digits, digitOf } = this;
    const none = digits.length;
    const digit = (use: Int32Array) =>
      Int32Array.from(options, (option) => {
        const at = use[option]! < 0 ? -1 : digitOf[use[option]!]!;
        return at < 0 ? none : at;
      });
    const [first, second, third] = part.use;
    return {
      options,
      cost: Float64Array.from(options, (option) => part.cost[option]!),
      reduced: Float64Array.from(options, (option) => part.reduced[option]!),
      first: digit(first),
      second: digit(second),
      third: digit(third),
    };
  }

  /** All that one state leads to at the next station. */
  private expand(
    here: StateTable,
    state: number,
    { options, cost, reduced, first, second, third }: Step,
    rest: number,
    left: Int32Array,
    falling: readonly number[],
    layer: number,
    next: StateTable,
  ): void {
    const { digits, weights, prices } = this;
    const none = digits.length;
    const key = here.keys[state]!;
    const spent = here.cost[state]!;
    let rent = 0;
    let lower = key;
    for (let at = none - 1; at >= 0; at -= 1) {
      const own = Math.floor(lower / weights[at]!);
      lower -= own * weights[at]!;
      left[at] = own;
      rent += own * prices[at]!;
    }
    const base = spent + rest - rent;
    for (let place = 0; place < options.length; place += 1) {
      if (this.isNoBetter(base + reduced[place]!)) break;
      this.steps += 1;
      const a = first[place]!;
      const b = second[place]!;
      const c = third[place]!;
      if (left[a]! < (a === b ? 2 : 1) || left[b]! < 1 || left[c]! < 1) continue;
      let reached = key - weights[a]! - weights[b]! - weights[c]!;
      for (const at of falling) {
        const spare =
          left[at]! - (at === a ? 1 : 0) - (at === b ? 1 : 0) - (at === c ? 1 : 0) - digits[at]!.demand[layer]!;
        if (spare > 0) reached -= spare * weights[at]!;
      }
      next.reach(reached, spent + cost[place]!, state, options[place]!);
    }
  }
}
