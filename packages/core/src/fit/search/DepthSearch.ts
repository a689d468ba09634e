import { type ChoiceLimits, hasEnded, spend } from './choiceLimits.js';
import type { ScarcePart } from './ScarcePart.js';

const INFINITY = Number.POSITIVE_INFINITY;
/** From this many nodes on, states are remembered: before that it costs more than it saves. */
const MEMO_FROM = 300;
const MEMO_STATIONS = 40;
const MEMO_ENTRIES = 400_000;
/** Nodes between two questions whether to stop. */
const STOP_EVERY = 1024;
/** Steps of work (see `WorkMeter`) per station in a node. */
const STEPS_OF_A_NODE = 60;

/** Goes through the plans of a part depth-first, the station with the most to lose first; what cannot beat the best plan is passed over. */
export class DepthSearch {
  private readonly part: ScarcePart;
  private readonly limits: ChoiceLimits;
  private readonly onStep: () => void;
  /** 1 for every station that has no option yet. */
  private readonly open: Uint8Array;
  private readonly path: Int32Array;
  private memo: Map<string, number> | null = null;
  private nodes = 0;
  private nodeLimit = 0;

  /** @param onStep told now and then that it goes on */
  constructor(part: ScarcePart, limits: ChoiceLimits, onStep: () => void) {
    this.part = part;
    this.limits = limits;
    this.onStep = onStep;
    this.open = new Uint8Array(part.count).fill(1);
    this.path = new Int32Array(part.count);
  }

  /**
   * Searches from the top for at most so many nodes.
   *
   * @param rent price of all that there is of the scarce resources
   * @param remembers whether states that were seen at no more cost are passed over: worth it in a long search of few stations
   * @returns true if it looked at everything
   */
  dive(nodeLimit: number, rent: number, remembers = false): boolean {
    this.nodes = 0;
    this.nodeLimit = nodeLimit;
    this.memo = remembers && this.part.count <= MEMO_STATIONS ? new Map() : null;
    this.descend(this.part.count, 0, rent);
    this.memo = null;
    return this.nodes <= this.nodeLimit;
  }

  private stateKey(): string {
    const { part } = this;
    let key = this.open.join('');
    for (const resource of part.scarce) key += `,${part.remaining[resource]}`;
    for (let group = 0; group < part.spread.length; group += 1) {
      if (part.spread[group] !== INFINITY) key += `|${part.low[group]}:${part.high[group]}`;
    }
    return key;
  }

  /**
   * @param left stations still open
   * @param cost what the closed ones cost
   * @param rent price of all that is left of the scarce resources
   */
  private descend(left: number, cost: number, rent: number): void {
    const { part } = this;
    if (left === 0) {
      if (cost < part.best) {
        part.best = cost;
        part.bestPath = this.path.slice();
      }
      return;
    }
    this.nodes += 1;
    if (this.nodes > this.nodeLimit) return;
    if (this.nodes % STOP_EVERY === 0) {
      this.onStep();
      spend(this.limits, STEPS_OF_A_NODE * STOP_EVERY * part.count);
      if (hasEnded(this.limits)) {
        this.nodeLimit = 0;
        return;
      }
    }
    if (this.memo && this.nodes > MEMO_FROM && left < part.count) {
      const key = this.stateKey();
      const reached = this.memo.get(key);
      if (reached !== undefined && reached <= cost) return;
      if (this.memo.size < MEMO_ENTRIES) this.memo.set(key, cost);
    }

    const { reduced } = part;
    let bound = cost - rent;
    let branch = -1;
    let branchLeast = 0;
    let branchRegret = -1;
    for (let station = 0; station < part.count; station += 1) {
      if (this.open[station] === 0) continue;
      const options = part.alive[station]!;
      let least = INFINITY;
      let second = INFINITY;
      for (let at = 0; at < options.length; at += 1) {
        const option = options[at]!;
        if (!part.fits(station, option)) continue;
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
    if (part.isProven(bound)) return;

    const group = part.groupOf[branch]!;
    const low = part.low[group]!;
    const high = part.high[group]!;
    this.open[branch] = 0;
    for (const option of part.alive[branch]!) {
      if (part.isProven(bound - branchLeast + reduced[option]!) || this.nodes > this.nodeLimit) break;
      if (!part.fits(branch, option)) continue;
      const freed = part.take(option, 1);
      part.low[group] = Math.min(low, part.deviation[option]!);
      part.high[group] = Math.max(high, part.deviation[option]!);
      this.path[branch] = option;
      this.descend(left - 1, cost + part.cost[option]!, rent - freed);
      part.take(option, -1);
      part.low[group] = low;
      part.high[group] = high;
    }
    this.open[branch] = 1;
  }
}
