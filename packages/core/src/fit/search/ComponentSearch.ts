import type { ChoiceProblem } from '../model/choice.js';
import { COST_PER_UM2 } from '../model/fitModel.js';
import { type ChoiceLimits, hasEnded } from './choiceLimits.js';
import { DepthSearch } from './DepthSearch.js';
import { exchangePairs } from './exchangePairs.js';
import { LayerSearch } from './LayerSearch.js';
import { partProgramme } from './partProgramme.js';
import { ASCENTS, raisePrices } from './raisePrices.js';
import { ScarcePart } from './ScarcePart.js';

const INFINITY = Number.POSITIVE_INFINITY;

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
  private readonly part: ScarcePart;
  private readonly depth: DepthSearch;
  private readonly limits: ChoiceLimits;
  private bound = 0;

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
    this.part = new ScarcePart(problem, members, kept, scarceMarks);
    this.depth = new DepthSearch(this.part, limits, () => this.report());
  }

  /** True if there is nothing left to find out, or no time. */
  get isDone(): boolean {
    return this.isSettled() || this.part.isEmpty() || hasEnded(this.limits);
  }

  /** The quick part: dives, prices, and one deeper dive. Settles most. */
  begin(): void {
    const { part } = this;
    if (this.part.isEmpty()) return;
    // Above the cost of any plan; well above, so that prices in whole cost units are fine enough where nothing costs anything.
    const ceiling = part.alive.reduce((sum, options) => sum + part.cost[options.at(-1)!]!, 0) + COST_PER_UM2;
    const floor = part.alive.reduce((sum, options) => sum + part.cost[options[0]!]!, 0);
    this.bound = floor;
    this.depth.dive(3 * part.count, 0);
    exchangePairs(part);
    part.drop(floor);
    for (const ascent of ASCENTS) {
      if (this.isDone) return;
      this.raise(raisePrices(part, Math.min(part.best, ceiling), ascent, this.limits), ceiling);
      if (this.isSettled()) return;
      part.drop(this.bound);
      if (this.part.isEmpty()) return;
      if (this.depth.dive(12 * part.count, part.rent())) this.raise(INFINITY, ceiling);
      else if (exchangePairs(part)) part.drop(this.bound);
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
    const { part } = this;
    if (!this.isDone) this.goThroughLayers();
    if (!this.isDone) this.askSolver();
    const isProven = this.isSettled() || this.part.isEmpty();
    if (!part.bestPath) return isProven ? 'infeasible' : { bound: this.bound };
    return {
      cost: part.best,
      bound: isProven ? part.best : this.bound,
      path: Array.from(part.bestPath, (option) => part.origin[option]!),
      prices: part.scarce.map((resource) => [resource, part.prices[resource]!]),
    };
  }

  /** Takes note of a proven bound; from the ceiling on it says that nothing fits. */
  private raise(bound: number, ceiling = INFINITY): void {
    if (bound > this.bound) this.bound = bound >= ceiling ? INFINITY : bound;
  }

  /** True if no plan can be cheaper than the best one, or there is none at all. */
  private isSettled(): boolean {
    return this.bound === INFINITY || this.part.isProven(this.bound);
  }

  /** Depth-first with remembered states: quickest where the prices nearly settle it. */
  private diveDeep(): void {
    const nodes = this.limits.solver ? DEEP_NODES : LONGEST_NODES;
    if (this.depth.dive(nodes, this.part.rent(), true)) this.raise(INFINITY);
  }

  private goThroughLayers(): void {
    const { part } = this;
    part.drop(this.bound);
    if (this.part.isEmpty()) return;
    const steps = part.count <= FEW_STATIONS ? STEPS_FOR_FEW : STEPS_FOR_MANY;
    const answer = new LayerSearch(
      part.layered(),
      part.best,
      this.limits.solver ? steps : LONGEST_STEPS,
      this.limits,
    ).solve();
    if (answer.status === 'too many') return;
    if (answer.status === 'found') {
      part.best = answer.cost;
      part.bestPath = answer.path;
    }
    this.raise(INFINITY);
  }

  /** Hands what could still be better to the integer solver. */
  private askSolver(): void {
    const { part } = this;
    const { solver } = this.limits;
    if (!solver) return;
    this.report();
    part.drop(this.bound);
    if (this.part.isEmpty()) return;
    const written = partProgramme(part.layered());
    const gap = part.grain / 2 / COST_PER_UM2;
    const answer = solver({ programme: written.programme, gap, nodes: SOLVER_NODES }, this.limits);
    if (answer.status === 'infeasible') {
      this.raise(INFINITY);
      return;
    }
    if (answer.status !== 'unknown') {
      const path = written.pathOf(answer.counts);
      const cost = path.reduce((sum, option) => sum + part.cost[option]!, 0);
      if (cost < part.best) {
        part.best = cost;
        part.bestPath = path;
      }
    }
    if (answer.status === 'optimal') this.raise(INFINITY);
    else this.raise(Math.ceil(answer.bound * COST_PER_UM2 - part.grain / 2));
  }

  private report(): void {
    const { part } = this;
    const cost = part.bestPath === null ? null : part.best / COST_PER_UM2;
    this.limits.onProgress?.({ doing: 'searching', cost, bound: this.bound / COST_PER_UM2 });
  }
}
