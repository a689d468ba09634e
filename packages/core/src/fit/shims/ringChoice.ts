import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { type Piece, roundedCost } from './placedProblem.js';
import { type RingStack, RingStacks } from './ringStacks.js';

export type RingRequest = Extract<ShimRequest, { kind: 'ring-shims' }>;

/** A stack with what it leads to, in whole nanometres. */
export interface RingChoice {
  readonly count: number;
  readonly stack: RingStack;
  readonly result: number;
  readonly cost: number;
}

/** The stacks that come nearest to the aim from below and from above, of every number of rings that is allowed. */
export interface NearestStacks {
  readonly best: RingChoice | null;
  /** The nearest result below the limits, and above them. */
  readonly below: RingChoice | null;
  readonly above: RingChoice | null;
  readonly stacks: RingStacks;
}

interface RingSums {
  readonly low: number;
  readonly high: number;
  readonly aim: number;
  /** What the rings have to fill so that nothing is left: the gap, less what settles. */
  readonly free: number;
  readonly counts: readonly number[];
  readonly choiceOf: (count: number, stack: RingStack) => RingChoice;
}

function ringSums(request: RingRequest): RingSums {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const aim = nm(request.aim);
  const free = nm(request.gap) - nm(request.settle);
  const { tightWeight, countPenalty } = request.rules;
  return {
    low: nm(request.low),
    high: nm(request.high),
    aim,
    free,
    counts: [...new Set(request.counts)],
    choiceOf: (count, stack) => {
      const result = free - stack.sum;
      const off = (result - aim) / 1000;
      const cost = (off < 0 ? tightWeight : 1) * off * off + countPenalty * request.counts.indexOf(count);
      return { count, stack, result, cost: roundedCost(cost) };
    },
  };
}

/** Chooses a stack: of each number of rings the two sums nearest to what the aim calls for can alone be the best. */
export function ringChoice(request: RingRequest, pieces: readonly Piece[]): NearestStacks {
  const { low, high, aim, free, counts, choiceOf } = ringSums(request);
  const stacks = new RingStacks(pieces, Math.max(...counts));
  const found = counts.flatMap((count) => {
    const { atMost, atLeast } = stacks.nearest(count, free - aim);
    return [atMost, atLeast].flatMap((stack) => (stack ? [choiceOf(count, stack)] : []));
  });
  const least = (list: RingChoice[], of: (choice: RingChoice) => number) =>
    list.reduce<RingChoice | null>((best, one) => (best === null || of(one) < of(best) ? one : best), null);
  return {
    best: least(
      found.filter(({ result }) => result >= low && result <= high),
      ({ cost }) => cost,
    ),
    below: least(
      found.filter(({ result }) => result < low),
      ({ result }) => -result,
    ),
    above: least(
      found.filter(({ result }) => result > high),
      ({ result }) => result,
    ),
    stacks,
  };
}

/** Stacks of different sums, the least cost first: of each number of rings, those around the aim on either side. */
export function stacksAround(request: RingRequest, pieces: readonly Piece[], most: number): RingChoice[] {
  const { aim, free, counts, choiceOf } = ringSums(request);
  const stacks = new RingStacks(pieces, Math.max(...counts));
  const found = counts.flatMap((count) => {
    const around: RingChoice[] = [];
    for (const side of ['atMost', 'atLeast'] as const) {
      let wanted = side === 'atMost' ? free - aim : free - aim + 1;
      for (let taken = 0; taken < most; taken += 1) {
        const stack = stacks.nearest(count, wanted)[side];
        if (!stack) break;
        around.push(choiceOf(count, stack));
        wanted = stack.sum + (side === 'atMost' ? -1 : 1);
      }
    }
    return around;
  });
  return found.sort((one, other) => one.cost - other.cost).slice(0, most);
}

/** The rings of a stack by id: of those of a thickness, the first of the list as far as they go. */
export function ringsOf({ counts }: RingStack, pieces: readonly Piece[]): { id: string; count: number }[] {
  const left = new Map(counts);
  return pieces.flatMap(({ id, thickness, stock }) => {
    const count = Math.min(stock, left.get(thickness) ?? 0);
    if (count === 0) return [];
    left.set(thickness, left.get(thickness)! - count);
    return [{ id, count }];
  });
}
