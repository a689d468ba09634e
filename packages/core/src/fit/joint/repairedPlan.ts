import { type ChoiceLimits, hasEnded } from '../search/choiceLimits.js';
import type { BlockClass } from './BlockClass.js';
import type { StationBlock } from './StationBlock.js';

/** Passes in which overdrawn halves become dearer until nothing is overdrawn. */
const REPAIR_PASSES = 150;
const REPAIR_GROWTH = 1.3;
const IMPROVING_PASSES = 6;

export interface Plan {
  readonly cost: number;
  /** Per class, unit and station its cell. */
  readonly picks: Int32Array[][];
}

/** Blocks that compete for scarce halves, at the present prices of those. */
export interface PricedBlocks {
  readonly classes: readonly BlockClass[];
  /** Numbers of the resources that may run short. */
  readonly scarce: readonly number[];
  /** By number of the resource, in cost units. */
  readonly prices: Float64Array;
  /** The smallest step of a cost. */
  readonly grain: number;
  /** By number of the resource, how many there are. */
  readonly capacity: Float64Array;
}

/** What is taken of each resource while cells are tried, and what is left. */
class Tried {
  readonly picks: Int32Array[][];
  readonly room: Float64Array;

  constructor({ classes, capacity }: PricedBlocks) {
    this.room = capacity.slice();
    this.picks = classes.map(({ block, units }) => units.map(() => new Int32Array(block.stations.length).fill(-1)));
  }

  take(block: StationBlock, pick: Int32Array): void {
    this.move(block, pick, 1);
  }

  giveBack(block: StationBlock, pick: Int32Array): void {
    this.move(block, pick, -1);
  }

  private move(block: StationBlock, pick: Int32Array, by: 1 | -1): void {
    for (const cell of pick) {
      if (cell < 0) continue;
      const a = block.first[cell]!;
      const b = block.second[cell]!;
      if (a >= 0) this.room[a]! -= by;
      if (b >= 0) this.room[b]! -= by;
    }
  }
}

/** Serves unit after unit, overdrawn halves dearer from pass to pass. @returns false if something is overdrawn still */
function settled(priced: PricedBlocks, tried: Tried, limits: ChoiceLimits): boolean {
  const { classes, scarce, prices, grain } = priced;
  const { room, picks } = tried;
  const asked = prices.slice();
  let dearer = grain / 4;
  let isOverdrawn = true;
  for (let pass = 0; pass < REPAIR_PASSES && isOverdrawn && !hasEnded(limits); pass += 1) {
    classes.forEach(({ block }, at) => {
      for (const pick of picks[at]!) {
        tried.giveBack(block, pick);
        for (const resource of scarce) asked[resource] = prices[resource]! + (room[resource]! < 1 ? dearer : 0);
        block.least(asked);
        pick.set(block.pick);
        tried.take(block, pick);
      }
    });
    isOverdrawn = scarce.some((resource) => room[resource]! < 0);
    dearer *= REPAIR_GROWTH;
  }
  return !isOverdrawn;
}

const costOf = (block: StationBlock, pick: Int32Array) => pick.reduce((sum, cell) => sum + block.cost[cell]!, 0);

/** Lets each unit have its best of what the others leave, for as long as one of them gains. */
function improve({ classes, scarce, prices }: PricedBlocks, tried: Tried, limits: ChoiceLimits): void {
  const { room, picks } = tried;
  const free = new Float64Array(prices.length);
  for (let pass = 0; pass < IMPROVING_PASSES && !hasEnded(limits); pass += 1) {
    let hasGained = false;
    classes.forEach(({ block }, at) => {
      for (const pick of picks[at]!) {
        tried.giveBack(block, pick);
        const before = costOf(block, pick);
        if (block.least(free, room) < before) {
          const kept = pick.slice();
          pick.set(block.pick);
          tried.take(block, pick);
          if (scarce.every((resource) => room[resource]! >= 0)) {
            hasGained = true;
            continue;
          }
          tried.giveBack(block, pick);
          pick.set(kept);
        }
        tried.take(block, pick);
      }
    });
    if (!hasGained) break;
  }
}

/** A plan near the present prices: units in step, overdrawn halves dearer from pass to pass; then each unit's best with what is left. Null where none stands. */
export function repairedPlan(priced: PricedBlocks, limits: ChoiceLimits): Plan | null {
  const tried = new Tried(priced);
  if (!settled(priced, tried, limits)) return null;
  improve(priced, tried, limits);
  let cost = 0;
  priced.classes.forEach(({ block }, at) => {
    for (const pick of tried.picks[at]!) cost += costOf(block, pick);
  });
  return { cost, picks: tried.picks };
}
