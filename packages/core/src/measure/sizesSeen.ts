import type { Nanometres } from './nanometres.js';

/** Sizes that were read, to compare one of them with all the others without going through them again. */
export class SizesSeen {
  private readonly sorted: readonly Nanometres[];

  /** @param sizes in any order, repeated ones as often as they were read */
  constructor(sizes: readonly Nanometres[]) {
    this.sorted = [...sizes].sort((a, b) => a - b);
  }

  /**
   * Smallest and largest of them; null where there are none.
   *
   * @param without one of the sizes, which is left out once
   */
  extent(without: Nanometres | null): { readonly low: Nanometres; readonly high: Nanometres } | null {
    const { sorted } = this;
    const isFirst = without !== null && sorted[0] === without;
    const low = isFirst ? sorted[1] : sorted[0];
    // One that is left out at the low end is not left out at the high end as well.
    const high = !isFirst && without !== null && sorted.at(-1) === without ? sorted.at(-2) : sorted.at(-1);
    return low === undefined || high === undefined ? null : { low, high };
  }

  /** True if any of them lies from `low` to `high`. @param without one of the sizes, which is left out once */
  hasWithin(low: number, high: number, without: Nanometres | null): boolean {
    const count = this.below(high + 1) - this.below(low);
    return count > (without !== null && without >= low && without <= high ? 1 : 0);
  }

  /** How many are smaller. */
  private below(size: number): number {
    let [from, to] = [0, this.sorted.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      if (this.sorted[middle]! < size) from = middle + 1;
      else to = middle;
    }
    return from;
  }
}
