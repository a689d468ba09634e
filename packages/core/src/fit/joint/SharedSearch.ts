import type { ChoiceProblem } from '../model/choice.js';
import { COST_PER_UM2 } from '../model/fitModel.js';
import type { IntegerSolver } from '../search/choiceLimits.js';
import { type ChoiceLimits, type FitProgress, hasEnded, spend } from '../search/choiceLimits.js';
import { greatestCommonDivisor } from '../search/greatestCommonDivisor.js';
import type { BlockClass } from './BlockClass.js';
import { ColumnPool } from './ColumnPool.js';
import { climb } from './climb.js';
import { collectNear, collectWithoutTwo } from './collectColumns.js';
import { finishingProgramme } from './finishingProgramme.js';
import { type Plan, type PricedBlocks, repairedPlan } from './repairedPlan.js';

/** Steps of work (see `WorkMeter`) of a round of prices, per option of the problem. */
const STEPS_OF_AN_OPTION = 6;
const INFINITY = Number.POSITIVE_INFINITY;

/** Rounds of price ascent, at most; it usually ends by its own measure of progress. */
const ROUNDS = 600;
const REPORT_EVERY = 20;
/** First step of the ascent, in grains. */
const FIRST_STEP = 10;
/** The combination may miss its best by this part of the bound. */
const CLOSE = 2e-4;
/** Ways a block that are combined, at most. */
const MOST_WAYS = 24;
/** Cells of single stations that the finishing step takes without a first plan. */
const SMALL = 4_000;
/** The finishing step takes on at most so many variables, a first try so many, and it branches at most so often. */
const MOST_VARIABLES = 30_000;
const PROMISING = 8_000;
const MOST_NODES = 4_000;

export interface SharedAnswer {
  readonly cost: number;
  readonly bound: number;
  /** Per station its option. */
  readonly options: ReadonlyMap<number, number>;
  /** Scarce resources with their price in cost units. */
  readonly prices: readonly (readonly [number, number])[];
}

/**
 * Search of a part with many stations, whose engines only compete for halves. Alike stations are counted, not listed; the
 * halves are priced by climbing the Lagrangian dual; at these prices every block is solved exactly, which gives the bound.
 * Then what is overdrawn is made dearer until a plan stands, options that no better plan can contain are dropped by their
 * reduced cost, and what remains goes to an integer solver, which proves it.
 */
export class SharedSearch {
  private readonly problem: ChoiceProblem;
  private readonly classes: readonly BlockClass[];
  private readonly scarce: readonly number[];
  private readonly grain: number;
  private readonly ceiling: number;
  private readonly prices: Float64Array;
  private readonly limits: ChoiceLimits;
  private readonly solver: IntegerSolver | null;

  constructor(problem: ChoiceProblem, classes: readonly BlockClass[], scarceMarks: Uint8Array, limits: ChoiceLimits) {
    this.problem = problem;
    this.classes = classes;
    this.limits = limits;
    this.solver = limits.solver ?? null;
    this.prices = new Float64Array(problem.capacity.length);
    const scarce = new Set<number>();
    let grain = 0;
    let ceiling = 1;
    for (const { block, units } of classes) {
      for (let cell = 0; cell < block.cost.length; cell += 1) {
        for (const resource of [block.first[cell]!, block.second[cell]!]) if (resource >= 0) scarce.add(resource);
        if (grain === 0 || block.cost[cell]! % grain !== 0) grain = greatestCommonDivisor(grain, block.cost[cell]!);
      }
      for (let at = 0; at < block.stations.length; at += 1) {
        ceiling +=
          units.length *
          block.cost.subarray(block.start[at]!, block.start[at + 1]!).reduce((a, b) => Math.max(a, b), 0);
      }
    }
    this.scarce = [...scarce].filter((resource) => scarceMarks[resource] === 1).sort((a, b) => a - b);
    this.grain = grain || 1;
    this.ceiling = ceiling;
  }

  /** @returns a plan with a bound, or that there is none, or null when it was not settled either way */
  solve(): SharedAnswer | 'infeasible' | null {
    this.report('sharing shells', null, null);
    const bound = this.ascend();
    if (bound >= this.ceiling) return 'infeasible';
    const lowest = this.roundedUp(bound);
    this.report('combining', null, lowest);
    const guessed = this.isSmall() ? null : this.guess(bound, lowest);
    let best: Plan | null =
      guessed ?? (this.isSmall() ? null : (this.combine(lowest) ?? repairedPlan(this.priced(), this.limits)));
    let isProven = best !== null && (best.cost <= lowest || guessed?.isProven === true);
    if (!isProven && this.solver !== null && !hasEnded(this.limits)) {
      this.report('proving', best?.cost ?? null, lowest);
      const finished = this.finish(bound, best?.cost ?? INFINITY);
      if (finished === 'infeasible') {
        if (best === null) return 'infeasible';
        isProven = true;
      } else if (finished !== null) {
        if (best === null || finished.cost < best.cost) best = finished;
        isProven = finished.isProven;
      }
    }
    if (best === null) return null;
    return {
      cost: best.cost,
      bound: isProven ? best.cost : Math.min(best.cost, lowest),
      options: this.optionsOf(best.picks),
      prices: this.scarce.map((resource) => [resource, this.prices[resource]!]),
    };
  }

  /** The blocks at the present prices. */
  private priced(): PricedBlocks {
    const { classes, scarce, prices, grain, problem } = this;
    return { classes, scarce, prices, grain, capacity: problem.capacity };
  }

  private report(doing: FitProgress['doing'], cost: number | null, bound: number | null): void {
    const scaled = (value: number | null) => (value === null ? null : value / COST_PER_UM2);
    this.limits.onProgress?.({ doing, cost: scaled(cost), bound: scaled(bound) });
  }

  /** True if few enough ways to serve single stations are left to be settled at once. */
  private isSmall(): boolean {
    const cells = this.classes.reduce((sum, { block }) => sum + block.cost.length, 0);
    const areSingle = this.classes.every(({ block }) => block.stations.length === 1);
    return this.solver !== null && areSingle && cells <= SMALL;
  }

  private optionsOf(picks: readonly (readonly Int32Array[])[]): Map<number, number> {
    const options = new Map<number, number>();
    this.classes.forEach(({ block, units, stations }, at) => {
      units.forEach((unit, which) => {
        unit.forEach((list, place) => {
          options.set(stations[which]![place]!, list[picks[at]![which]![place]! - block.start[place]!]!);
        });
      });
    });
    return options;
  }

  /** Costs are multiples of the grain: so is the least. */
  private roundedUp(bound: number): number {
    return Math.ceil(bound / this.grain) * this.grain;
  }

  /** The bound at the present prices; `excess` becomes what is taken beyond the capacity. */
  private evaluate(excess: Float64Array): number {
    const { prices, problem } = this;
    let bound = 0;
    for (const resource of this.scarce) {
      excess[resource] = -problem.capacity[resource]!;
      bound -= prices[resource]! * problem.capacity[resource]!;
    }
    for (const { block, units } of this.classes) {
      bound += units.length * block.least(prices);
      for (const cell of block.pick) {
        const a = block.first[cell]!;
        const b = block.second[cell]!;
        if (a >= 0) excess[a]! += units.length;
        if (b >= 0) excess[b]! += units.length;
      }
    }
    return bound;
  }

  /** Raises the prices of what is overdrawn and lowers those of what is left over. @returns the best bound; prices stay at it */
  private ascend(): number {
    const { prices, scarce, problem } = this;
    const excess = new Float64Array(prices.length);
    const bestPrices = prices.slice();
    let best = -INFINITY;
    let rounds = 0;
    climb(scarce.length, {
      rounds: ROUNDS,
      step: this.grain * FIRST_STEP,
      leastStep: this.grain / 50,
      slopeAt: (point) => {
        scarce.forEach((resource, at) => {
          prices[resource] = Math.max(0, Math.round(point[at]!));
        });
        const bound = this.evaluate(excess);
        spend(this.limits, STEPS_OF_AN_OPTION * problem.cost.length);
        if (bound > best) {
          best = bound;
          bestPrices.set(prices);
        }
        if (best >= this.ceiling || hasEnded(this.limits)) return null;
        rounds += 1;
        if (rounds % REPORT_EVERY === 0) this.report('sharing shells', null, Math.max(0, best));
        return Float64Array.from(scarce, (resource, at) =>
          point[at]! < 0 ? problem.capacity[resource]! : excess[resource]!,
        );
      },
    });
    prices.set(bestPrices);
    return best;
  }

  /** The cheapest plan made of ways that are best for their block at prices near the present ones; null when none was found. */
  private combine(lowest: number): Plan | null {
    if (this.solver === null || hasEnded(this.limits)) return null;
    const pool = new ColumnPool(this.classes);
    collectNear(this.priced(), pool);
    const few = this.combined(pool, MOST_WAYS, lowest);
    if (few !== null) return few;
    collectWithoutTwo(this.priced(), pool);
    return this.combined(pool, 4 * MOST_WAYS, lowest);
  }

  private combined(pool: ColumnPool, ways: number, lowest: number): Plan | null {
    const programme = pool.programme(this.prices, this.problem.capacity, ways);
    // Good enough to drop nearly all else; the proof comes after.
    const gap = Math.max(this.grain / 2, lowest * CLOSE) / COST_PER_UM2;
    const answer = this.solver!({ programme: programme.programme, gap, nodes: MOST_NODES }, this.limits);
    if (answer.status === 'infeasible' || answer.status === 'unknown') return null;
    return this.counted(programme.picksOf(answer.counts));
  }

  /** What the integer solver said, checked against the stock and added up. */
  private counted(picks: Int32Array[][]): Plan {
    const room = this.problem.capacity.slice();
    let cost = 0;
    this.classes.forEach(({ block, units }, at) => {
      if (picks[at]!.length !== units.length) throw new Error('the integer solver lost a station');
      for (const cell of picks[at]!.flatMap((pick) => Array.from(pick))) {
        cost += block.cost[cell]!;
        if (block.first[cell]! >= 0) room[block.first[cell]!]! -= 1;
        if (block.second[cell]! >= 0) room[block.second[cell]!]! -= 1;
      }
    });
    if (room.some((left) => left < 0)) throw new Error('the integer solver used more shells than there are');
    return { cost, picks };
  }

  /** What each cell costs beyond the bound at the present prices, at least. */
  private excesses(): Float64Array[] {
    return this.classes.map(({ block }) => {
      const withCell = new Float64Array(block.cost.length);
      const least = block.least(this.prices);
      block.leastWith(this.prices, withCell);
      return withCell.map((value) => value - least);
    });
  }

  /** Guesses that the least cost lies close above the bound, and looks only where it then would; null when it does not. */
  private guess(bound: number, lowest: number): (Plan & { isProven: boolean }) | null {
    if (this.solver === null || hasEnded(this.limits)) return null;
    const excess = this.excesses();
    const room = Math.max(2 * this.grain, lowest * CLOSE);
    if (excess.some((values) => values.every((value) => value > room))) return null;
    const found = this.settle(excess, room);
    if (found === 'infeasible' || found === null) return null;
    return { ...found, isProven: found.isProven && found.cost - this.grain - bound <= room };
  }

  /**
   * Hands what could still be better than `ceiling` to the integer solver. Where that is too much, the most promising part of it
   * first, for a better ceiling.
   */
  private finish(bound: number, ceiling: number): (Plan & { isProven: boolean }) | 'infeasible' | null {
    const excess = this.excesses();
    const most = ceiling - this.grain - bound;
    const variables = (limit: number) =>
      excess.reduce((sum, values) => sum + values.reduce((count, value) => count + (value <= limit ? 1 : 0), 0), 0);
    if (variables(most) <= MOST_VARIABLES) return this.settle(excess, most);
    const sorted = Float64Array.from(excess.flatMap((values) => [...values])).sort();
    const part = this.settle(excess, sorted[PROMISING]!);
    if (part === 'infeasible' && ceiling === INFINITY) return this.settle(excess, INFINITY);
    if (part === 'infeasible' || part === null || part.cost >= ceiling) return null;
    return variables(part.cost - this.grain - bound) <= MOST_VARIABLES
      ? this.better(part, this.settle(excess, part.cost - this.grain - bound))
      : { ...part, isProven: false };
  }

  private better(
    plan: Plan,
    found: (Plan & { isProven: boolean }) | 'infeasible' | null,
  ): Plan & { isProven: boolean } {
    if (found === 'infeasible') return { ...plan, isProven: true };
    return found !== null && found.cost < plan.cost ? found : { ...plan, isProven: false };
  }

  /** The best plan of cells that cost at most `limit` more than the bound. */
  private settle(excess: readonly Float64Array[], limit: number): (Plan & { isProven: boolean }) | 'infeasible' | null {
    const alive = excess.map((values) => Uint8Array.from(values, (value) => (value <= limit ? 1 : 0)));
    const programme = finishingProgramme(this.classes, alive, this.problem.capacity);
    if (programme === null) return 'infeasible';
    const answer = this.solver!(
      { programme: programme.programme, gap: this.grain / 2e6, nodes: MOST_NODES },
      this.limits,
    );
    if (answer.status === 'infeasible') return 'infeasible';
    if (answer.status === 'unknown') return null;
    return { ...this.counted(programme.picksOf(answer.counts)), isProven: answer.status === 'optimal' };
  }
}
