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

/** Chooses a stack: of each number of rings the two sums nearest to what the aim calls for can alone be the best. */
export function ringChoice(request: RingRequest, pieces: readonly Piece[]): NearestStacks {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const [low, high, aim] = [nm(request.low), nm(request.high), nm(request.aim)];
  const free = nm(request.gap) - nm(request.settle);
  const { tightWeight, countPenalty } = request.rules;
  const counts = [...new Set(request.counts)];
  const stacks = new RingStacks(pieces, Math.max(...counts));
  const found = counts.flatMap((count) => {
    const { atMost, atLeast } = stacks.nearest(count, free - aim);
    return [atMost, atLeast].flatMap((stack): RingChoice[] => {
      if (!stack) return [];
      const result = free - stack.sum;
      const off = (result - aim) / 1000;
      const cost = (off < 0 ? tightWeight : 1) * off * off + countPenalty * request.counts.indexOf(count);
      return [{ count, stack, result, cost: roundedCost(cost) }];
    });
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
