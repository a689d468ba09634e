import type { ChoiceProblem } from '../model/choice.js';
import { greatestCommonDivisor } from './greatestCommonDivisor.js';
import type { LayeredPart } from './LayerSearch.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * One part of a choice problem whose stations share scarce resources or a limited spread: its options side by side, what is left of the
 * resources, their prices, and the best plan so far. Costs and prices are whole numbers, and costs are multiples of a grain.
 */
export class ScarcePart {
  readonly count: number;
  /** Per option, flat: its position in the whole problem, cost, deviation and up to three scarce resources (or −1). */
  readonly origin: Int32Array;
  readonly cost: Float64Array;
  readonly reduced: Float64Array;
  readonly deviation: Float64Array;
  readonly use: readonly [Int32Array, Int32Array, Int32Array];
  /** Per station its options still in play, cheapest reduced cost first. */
  alive: Int32Array[];
  readonly scarce: readonly number[];
  readonly remaining: Float64Array;
  readonly prices: Float64Array;
  readonly groupOf: Int32Array;
  readonly spread: Float64Array;
  /** Per group the least and the greatest deviation of what is taken. */
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly grain: number;
  /** Cost of the best plan so far, and its option per station. */
  best = INFINITY;
  bestPath: Int32Array | null = null;

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
  ) {
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
  }

  /** True if a station has no option left that a cheaper plan could contain. */
  isEmpty(): boolean {
    return this.alive.some((options) => options.length === 0);
  }

  /** No plan can beat the best one: the next cheaper cost would be a whole grain below it. */
  isProven(bound: number): boolean {
    return bound > this.best - this.grain;
  }

  /** Price of all that there is of the scarce resources: what the bound gives back. */
  rent(): number {
    let rent = 0;
    for (const resource of this.scarce) rent += this.prices[resource]! * this.remaining[resource]!;
    return rent;
  }

  /** The part as the search by layers and the integer solver take it. */
  layered(): LayeredPart {
    const { alive, cost, reduced, deviation, use, scarce, prices, groupOf, spread, grain } = this;
    return { alive, cost, reduced, deviation, use, scarce, capacity: this.remaining, prices, groupOf, spread, grain };
  }

  /** Drops options that no better plan can contain, judged by their reduced cost against a proven bound. */
  drop(bound: number): void {
    if (this.best === INFINITY) return;
    const { reduced } = this;
    this.alive = this.alive.map((options) => {
      const least = options.length > 0 ? reduced[options[0]!]! : 0;
      return options.filter((option) => !this.isProven(bound - least + reduced[option]!));
    });
  }

  /** Works out the reduced costs at the present prices and sorts the options by them. */
  reprice(): void {
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

  /** True if enough is left of everything that an option takes. */
  isFree(option: number): boolean {
    const { remaining } = this;
    const [a, b, c] = [this.use[0][option]!, this.use[1][option]!, this.use[2][option]!];
    // Only the two halves can be of one kind; a housing is always another resource.
    if (a >= 0 && remaining[a]! < (a === b ? 2 : 1)) return false;
    if (b >= 0 && remaining[b]! < 1) return false;
    return c < 0 || remaining[c]! >= 1;
  }

  /** True if an option can be taken at a station beside what is taken already. */
  fits(station: number, option: number): boolean {
    if (!this.isFree(option)) return false;
    const group = this.groupOf[station]!;
    const spread = this.spread[group]!;
    if (spread === INFINITY) return true;
    const deviation = this.deviation[option]!;
    return Math.max(this.high[group]!, deviation) - Math.min(this.low[group]!, deviation) <= spread;
  }

  /** Takes an option, or with −1 puts it back. @returns the price of what it uses */
  take(option: number, by: 1 | -1): number {
    let freed = 0;
    for (const use of this.use) {
      const resource = use[option]!;
      if (resource < 0) continue;
      this.remaining[resource]! -= by;
      freed += this.prices[resource]!;
    }
    return freed;
  }
}
