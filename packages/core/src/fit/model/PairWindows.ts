import type { Family } from '../../part/family.js';
import type { ModelRules, ModelShell } from './fitModel.js';
import { isOpenShell } from './shellPairs.js';

/** Lower halves of one kind of pairing, by wall. */
interface SortedLowers {
  readonly shells: Int32Array;
  readonly walls: Float64Array;
  /** Per place the next one and the last one before it that are of another series. */
  readonly after: Int32Array;
  readonly before: Int32Array;
}

function sortedLowers(all: readonly ModelShell[], list: readonly number[]): SortedLowers {
  const after = new Int32Array(list.length);
  const before = new Int32Array(list.length);
  const isAlike = (one: number, other: number) => all[list[one]!]!.series === all[list[other]!]!.series;
  for (let at = list.length - 1; at >= 0; at -= 1) {
    after[at] = at + 1 < list.length && isAlike(at, at + 1) ? after[at + 1]! : at + 1;
  }
  for (let at = 0; at < list.length; at += 1) before[at] = at > 0 && isAlike(at, at - 1) ? before[at - 1]! : at - 1;
  return {
    shells: Int32Array.from(list),
    walls: Float64Array.from(list, (at) => all[at]!.wall),
    after,
    before,
  };
}

/** Sums of walls that are wanted, nm, and the one aimed at. */
export interface WallRange {
  readonly least: number;
  readonly most: number;
  readonly aim: number;
}

interface Nearness {
  readonly lower: number;
  readonly outside: number;
  readonly off: number;
}

function nearnessOf(lower: number, sum: number, range: WallRange): Nearness {
  return {
    lower,
    outside: Math.max(0, range.least - sum, sum - range.most),
    off: Math.abs(sum - range.aim),
  };
}

/** First position in a sorted list whose value is at least `value`. */
function firstFrom(sorted: Float64Array, value: number): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle]! < value) from = middle + 1;
    else to = middle;
  }
  return from;
}

/**
 * The pairs of a family at one place, without listing them: lower halves sorted by wall, of which each upper half sees a window. For
 * lists so long that every pair of them is too many.
 */
export class PairWindows {
  /** Upper halves that are open, by position, the cheapest first. */
  readonly uppers: readonly number[];
  /** What the two halves of a pair cost at least, in cost units. */
  readonly leastPrice: number;
  private readonly all: readonly ModelShell[];
  private readonly rules: ModelRules;
  /** Per upper half the lower halves of its series, and those of every series where the rules mix them. */
  private readonly ofSeries = new Map<number, SortedLowers | undefined>();
  private readonly ofAny = new Map<number, SortedLowers | undefined>();

  /** @param isAllowed leaves halves out of a side, by position */
  constructor(
    all: readonly ModelShell[],
    family: Family,
    rules: ModelRules,
    position: string,
    isAllowed: (shell: number, side: 'upper' | 'lower') => boolean = () => true,
  ) {
    this.all = all;
    this.rules = rules;
    const open = all.flatMap((shell, at) => (isOpenShell(shell, family, position) ? [at] : []));
    this.uppers = open
      .filter((at) => all[at]!.half !== 'lower' && isAllowed(at, 'upper'))
      .sort((a, b) => all[a]!.price - all[b]!.price || a - b);
    const lowers = open
      .filter((at) => all[at]!.half !== 'upper' && isAllowed(at, 'lower'))
      .sort((a, b) => all[a]!.wall - all[b]!.wall || a - b);
    const leastOf = (halves: readonly number[]) =>
      halves.reduce((least, at) => Math.min(least, all[at]!.price), Number.POSITIVE_INFINITY);
    this.leastPrice = lowers.length === 0 || this.uppers.length === 0 ? 0 : leastOf(this.uppers) + leastOf(lowers);
    const sorted = (into: Map<number, SortedLowers | undefined>, keyOf: (shell: ModelShell) => string) => {
      const lists = new Map<string, number[]>();
      for (const at of lowers) {
        const key = keyOf(all[at]!);
        const list = lists.get(key);
        if (list) list.push(at);
        else lists.set(key, [at]);
      }
      const made = new Map([...lists].map(([key, list]): [string, SortedLowers] => [key, sortedLowers(all, list)]));
      for (const upper of this.uppers) into.set(upper, made.get(keyOf(all[upper]!)));
    };
    sorted(this.ofSeries, (shell) => JSON.stringify([shell.undersize, shell.series]));
    if (rules.acrossSeries) sorted(this.ofAny, ({ undersize }) => undersize);
  }

  /** What lower walls the rules allow beside an upper one, nm. */
  private allowedWalls(wall: number): [number, number] {
    const step = this.rules.mixedHalves ? this.rules.maxWallStep : 0;
    const { thinnerHalf } = this.rules;
    return [thinnerHalf === 'upper' ? wall : wall - step, thinnerHalf === 'lower' ? wall : wall + step];
  }

  /**
   * Visits the lower halves that may stand under an upper one with a sum of walls within a range, thinnest first.
   *
   * @param walls least and greatest sum of walls of a pair, by whether both halves are of one series
   */
  visit(
    upper: number,
    wallsOf: (series: string | null) => readonly [number, number],
    each: (lower: number) => void,
  ): void {
    const { series } = this.all[upper]!;
    this.scan(upper, this.ofSeries.get(upper), wallsOf(series), null, each);
    if (this.rules.acrossSeries) this.scan(upper, this.ofAny.get(upper), wallsOf(null), series, each);
  }

  /** @param skips a series whose halves are left out; null: none */
  private scan(
    upper: number,
    list: SortedLowers | undefined,
    [from, to]: readonly [number, number],
    skips: string | null,
    each: (lower: number) => void,
  ): void {
    if (list === undefined) return;
    const { wall, stock } = this.all[upper]!;
    const [least, most] = this.allowedWalls(wall);
    const last = Math.min(most, to - wall);
    for (let at = firstFrom(list.walls, Math.max(least, from - wall)); at < list.walls.length; ) {
      if (list.walls[at]! > last) return;
      const lower = list.shells[at]!;
      const isSkipped = skips !== null && this.all[lower]!.series === skips;
      if (!isSkipped && (lower !== upper || stock >= 2)) each(lower);
      at = isSkipped ? list.after[at]! : at + 1;
    }
  }

  /**
   * The lower half whose sum of walls with an upper one is nearest a range.
   *
   * @param rangeOf the range, nm, and the sum aimed at, by whether both halves are of one series
   * @returns inside the range the one nearest the aim, outside the one nearest the range; null: none
   */
  nearest(upper: number, rangeOf: (series: string | null) => WallRange): number | null {
    const { series } = this.all[upper]!;
    const own = this.nearestOf(upper, this.ofSeries.get(upper), rangeOf(series), null);
    const any = this.rules.acrossSeries ? this.nearestOf(upper, this.ofAny.get(upper), rangeOf(null), series) : null;
    if (own === null || any === null) return (own ?? any)?.lower ?? null;
    const isFurther = own.outside - any.outside || own.off - any.off;
    return (isFurther > 0 ? any : own).lower;
  }

  private nearestOf(
    upper: number,
    list: SortedLowers | undefined,
    range: WallRange,
    skips: string | null,
  ): Nearness | null {
    if (list === undefined) return null;
    const { wall, stock } = this.all[upper]!;
    const [least, most] = this.allowedWalls(wall);
    const { walls, shells } = list;
    const from = firstFrom(walls, least);
    const end = firstFrom(walls, most + 1);
    let above = Math.min(end, Math.max(from, firstFrom(walls, range.aim - wall)));
    let below = above - 1;
    const isSkipped = (at: number) => skips !== null && this.all[shells[at]!]!.series === skips;
    // The half itself stands in the list once, so that these take few steps.
    while (above < end && (isSkipped(above) || (shells[above] === upper && stock < 2))) {
      above = isSkipped(above) ? list.after[above]! : above + 1;
    }
    while (below >= from && (isSkipped(below) || (shells[below] === upper && stock < 2))) {
      below = isSkipped(below) ? list.before[below]! : below - 1;
    }
    const one = below < from ? null : nearnessOf(shells[below]!, wall + walls[below]!, range);
    const other = above >= end ? null : nearnessOf(shells[above]!, wall + walls[above]!, range);
    if (one === null || other === null) return one ?? other;
    return (one.outside - other.outside || one.off - other.off) <= 0 ? one : other;
  }
}
