import type { Piece } from './placedProblem.js';

/** Rings of one thickness. */
interface Rings {
  readonly thickness: number;
  readonly stock: number;
}

/** A sum that some rings of one half of the thicknesses have: the last thickness taken, how many of it, and what it was added to. */
interface PartStack {
  readonly sum: number;
  readonly before: PartStack | null;
  readonly thickness: number;
  readonly count: number;
}

/** A stack: how many rings of each thickness, and their sum. */
export interface RingStack {
  readonly sum: number;
  readonly counts: ReadonlyMap<number, number>;
}

/** Maximum sums tried on each side; never met with rings in whole hundredths of a millimetre or tenths of a thou. */
const MOST_TRIED = 20_000_000;

/** The stacks are too many to be gone through. */
export class TooManyStacks extends Error {
  override readonly name = 'TooManyStacks';

  constructor(pieces: number, most: number) {
    super(
      `too many combinations for stacks of up to ${most} rings from ${pieces} thicknesses; allow fewer rings, or remove pieces`,
    );
  }
}

/** Every different sum of up to `most` rings, by their count, each once and in rising order. */
function partStacks(rings: readonly Rings[], most: number): PartStack[][] {
  const levels: Map<number, PartStack>[] = Array.from({ length: most + 1 }, () => new Map());
  levels[0]!.set(0, { sum: 0, before: null, thickness: 0, count: 0 });
  let tried = 0;
  for (const { thickness, stock } of rings) {
    // From the most rings down, so that none of this thickness is added to what has some of it already.
    for (let count = most - 1; count >= 0; count -= 1) {
      const standing = [...levels[count]!.values()];
      for (let more = 1; more <= Math.min(stock, most - count); more += 1) {
        const level = levels[count + more]!;
        tried += standing.length;
        if (tried > MOST_TRIED) throw new TooManyStacks(rings.length, most);
        for (const before of standing) {
          const sum = before.sum + more * thickness;
          if (level.has(sum)) continue;
          level.set(sum, { sum, before, thickness, count: more });
        }
      }
    }
  }
  return levels.map((level) => [...level.values()].sort((one, other) => one.sum - other.sum));
}

function wholeStack(parts: readonly PartStack[]): RingStack {
  const counts = new Map<number, number>();
  let sum = 0;
  for (const part of parts) {
    sum += part.sum;
    for (let at: PartStack | null = part; at && at.count > 0; at = at.before) {
      counts.set(at.thickness, (counts.get(at.thickness) ?? 0) + at.count);
    }
  }
  return { sum, counts };
}

/**
 * Stacks of rings by their sum. The thicknesses are dealt into two halves; all sums of each are listed once, and a stack is one of each
 * (meet in the middle; Horowitz and Sahni 1974, cited from memory). For sixty thicknesses and four rings that is some 90 000 sums
 * instead of 600 000 stacks; a search for the nearest goes along both lists once.
 */
export class RingStacks {
  private readonly halves: readonly [PartStack[][], PartStack[][]];

  /**
   * @param pieces rings; those of a thickness are taken together
   * @param most the most rings in a stack
   * @throws TooManyStacks
   */
  constructor(pieces: readonly Piece[], most: number) {
    const stocks = new Map<number, number>();
    for (const { thickness, stock } of pieces) stocks.set(thickness, (stocks.get(thickness) ?? 0) + stock);
    const rings = [...stocks]
      .map(([thickness, stock]) => ({ thickness, stock }))
      .filter(({ stock }) => stock > 0)
      .sort((one, other) => one.thickness - other.thickness);
    this.halves = [
      partStacks(
        rings.filter((_, at) => at % 2 === 0),
        most,
      ),
      partStacks(
        rings.filter((_, at) => at % 2 === 1),
        most,
      ),
    ];
  }

  /**
   * The stacks of so many rings whose sums are nearest to a wanted one: the highest that is not above it, and the lowest that is not
   * below.
   */
  nearest(count: number, wanted: number): { readonly atMost: RingStack | null; readonly atLeast: RingStack | null } {
    let atMost: readonly [PartStack, PartStack] | null = null;
    let atLeast: readonly [PartStack, PartStack] | null = null;
    let under = Number.NEGATIVE_INFINITY;
    let over = Number.POSITIVE_INFINITY;
    for (let first = 0; first <= count; first += 1) {
      const rising = this.halves[0][first] ?? [];
      const falling = this.halves[1][count - first] ?? [];
      let at = 0;
      let from = falling.length - 1;
      while (at < rising.length && from >= 0) {
        const one = rising[at]!;
        const other = falling[from]!;
        const sum = one.sum + other.sum;
        if (sum <= wanted && sum > under) {
          under = sum;
          atMost = [one, other];
        }
        if (sum >= wanted && sum < over) {
          over = sum;
          atLeast = [one, other];
        }
        if (sum < wanted) at += 1;
        else from -= 1;
      }
    }
    return { atMost: atMost && wholeStack(atMost), atLeast: atLeast && wholeStack(atLeast) };
  }
}
