import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { dealOut } from '../../shell/dealOut.js';
import { type Piece, roundedCost } from './placedProblem.js';
import { type RingStack, RingStacks } from './ringStacks.js';
import type { RequestOf } from './shimKinds.js';

export type RingRequest = RequestOf<'ring-shims'>;

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

/** The rings of a stack by id: of as few part numbers, and with as few left over, as can be. */
export function ringsOf({ counts }: RingStack, pieces: readonly Piece[]): { id: string; count: number }[] {
  const dealt = new Map<Piece, number>();
  for (const [thickness, count] of counts) {
    const own = pieces.filter((piece) => piece.thickness === thickness);
    dealOut(
      own.map(({ stock }) => stock),
      count,
    ).forEach((share, at) => {
      if (share > 0) dealt.set(own[at]!, share);
    });
  }
  return pieces.flatMap((piece) => (dealt.has(piece) ? [{ id: piece.id, count: dealt.get(piece)! }] : []));
}

/** Steps that looking for a stack of the same sum may take; then the one at hand stands. */
const MOST_LOOKED_AT = 200_000;

/**
 * Of stacks of one sum and one number of rings the one of the fewest part numbers, then the one that leaves the fewest rings of those it uses:
 * what is opened is used up. Every stack is gone through while they are not too many.
 */
export function tidiestStack(stack: RingStack, pieces: readonly Piece[]): RingStack {
  const stocks = new Map<number, number>();
  for (const { thickness, stock } of pieces) stocks.set(thickness, (stocks.get(thickness) ?? 0) + stock);
  const kinds = [...stocks].filter(([, stock]) => stock > 0).sort(([one], [other]) => other - one);
  const rankOf = (counts: ReadonlyMap<number, number>) => {
    const rings = ringsOf({ sum: 0, counts }, pieces);
    const left = rings.reduce((sum, { id, count }) => {
      const { stock } = pieces.find((piece) => piece.id === id)!;
      return sum + (stock === Number.POSITIVE_INFINITY ? 0 : stock - count);
    }, 0);
    return [rings.length, left] as const;
  };
  let best = stack.counts;
  let rank = rankOf(best);
  let looked = 0;
  const taken = new Map<number, number>();
  const look = (at: number, rings: number, sum: number): void => {
    looked += 1;
    if (looked > MOST_LOOKED_AT) return;
    if (rings === 0) {
      if (sum !== 0) return;
      const own = rankOf(taken);
      if (own[0] > rank[0] || (own[0] === rank[0] && own[1] >= rank[1])) return;
      best = new Map(taken);
      rank = own;
      return;
    }
    const kind = kinds[at];
    if (kind === undefined || taken.size > rank[0]) return;
    const [thickness, stock] = kind;
    // Kinds come thickest first: what is left can be no more than this thickness for every ring.
    if (sum > rings * thickness || sum < 0) return;
    for (let count = Math.min(stock, rings); count >= 0; count -= 1) {
      if (count > 0) taken.set(thickness, count);
      else taken.delete(thickness);
      look(at + 1, rings - count, sum - count * thickness);
    }
  };
  look(
    0,
    [...stack.counts.values()].reduce((sum, count) => sum + count, 0),
    stack.sum,
  );
  return { sum: stack.sum, counts: best };
}
