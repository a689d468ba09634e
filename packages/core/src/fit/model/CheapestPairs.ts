import { eachFamily, type Family } from '../../part/family.js';
import { type FitModel, isWished, limitsWith, offsetOfPair } from './fitModel.js';
import { deviationCost, endPlayCost, type OptionsHeld } from './optionCost.js';
import { PairWindows } from './PairWindows.js';
import { pairOf, type ShellPair } from './shellPairs.js';

interface CostedPair {
  readonly pair: ShellPair;
  readonly deviation: number;
  readonly cost: number;
}

/** Pairs looked at for one station, housing and range of deviations; with more of them the list is `part`. */
const MOST_LOOKED_AT = 12_000_000;
/** Pairs kept at once before the dearest of them are dropped. */
const MOST_KEPT = 60_000;
/** Pairs looked at to find out what the dearest that is needed costs at most, for few stations. */
const FIRST_LOOK = 4_000;
/** Ranges of deviation that are listed apart from each other where the spread counts. */
const RANGES = 64;
/** Half the width of the first look around the aim, nm. */
const FIRST_RANGE = 1_000;

/**
 * Of very many pairs those that a plan of least cost can need at a station. The other stations of the family use at most `n` halves,
 * so that of `n + 1` pairs without a common half one is free, whatever the others take: a dearer pair than all of them is never
 * needed. In the same way a half is needed with its `n + 1` cheapest partners only. Where the spread is limited this holds among pairs
 * of one deviation, and the list is made range by range of deviations.
 */
export class CheapestPairs {
  private readonly model: FitModel;
  private readonly isOver: () => boolean;
  private readonly windows = new Map<string, PairWindows>();
  private readonly others: Readonly<Record<Family, number>>;
  private range = FIRST_RANGE;

  constructor(model: FitModel, isOver: () => boolean) {
    this.model = model;
    this.isOver = isOver;
    this.others = eachFamily((family) => 2 * model.stations.filter((station) => station.family === family).length - 1);
  }

  /** The pairs of a station in one housing, in the order of their halves. */
  at(index: number, housing: number): { readonly pairs: readonly CostedPair[]; readonly holds: OptionsHeld } {
    const { stations, housings, rules } = this.model;
    const station = stations[index]!;
    const { low, high } = limitsWith(station, housings[housing]!);
    const [from, to] = [low - station.aim, high - station.aim];
    if (from > to) return { pairs: [], holds: 'all' };
    const found =
      rules.maxSpread[station.family] === null || !station.inSpread
        ? this.cheapest(index, housing, from, to)
        : this.rangeByRange(index, housing, from, to);
    return {
      holds: found.holds,
      pairs: [...found.pairs].sort((a, b) => a.pair.upper - b.pair.upper || a.pair.lower - b.pair.lower),
    };
  }

  private rangeByRange(index: number, housing: number, from: number, to: number) {
    const step = Math.max(1, Math.ceil((to - from + 1) / RANGES));
    const pairs: CostedPair[] = [];
    let holds: OptionsHeld = step === 1 ? 'all' : 'without spread';
    for (let first = from; first <= to; first += step) {
      const found = this.cheapest(index, housing, first, Math.min(to, first + step - 1));
      for (const one of found.pairs) pairs.push(one);
      if (found.holds === 'part') holds = 'part';
    }
    return { pairs, holds };
  }

  private windowsOf(index: number): PairWindows {
    const { shells, rules, stations } = this.model;
    const { family, position } = stations[index]!;
    const key = `${family}|${position}`;
    const known = this.windows.get(key) ?? new PairWindows(shells, family, rules, position);
    this.windows.set(key, known);
    return known;
  }

  /** The cheapest pairs with deviations in a range, nm. */
  private cheapest(
    index: number,
    housing: number,
    from: number,
    to: number,
  ): { pairs: readonly CostedPair[]; holds: OptionsHeld } {
    const nearest = from > 0 ? from : to < 0 ? -to : 0;
    // What the dearest pair that is needed costs at most: enough of any pairs tell that.
    let most = Number.POSITIVE_INFINITY;
    const looks = Math.max(FIRST_LOOK, 20 * this.others[this.model.stations[index]!.family] ** 2);
    for (let range = this.range; ; range *= 8) {
      const [first, last] = [Math.max(from, -nearest - range), Math.min(to, nearest + range)];
      const some = this.within(index, housing, first, last, most, looks);
      if (some.most < most) most = some.most;
      if (first === from && last === to && some.isWhole) return { pairs: some.pairs, holds: 'all' };
      if (most < Number.POSITIVE_INFINITY || (first === from && last === to)) {
        this.range = range;
        break;
      }
    }
    const { pairs, isWhole } = this.within(index, housing, from, to, most, MOST_LOOKED_AT);
    return { pairs, holds: isWhole ? 'all' : 'part' };
  }

  /**
   * The pairs of a station in a housing with a deviation in a range that are needed, of those that cost no more than `most`.
   *
   * @returns `most`: what the dearest needed pair costs at most, as far as these tell; `isWhole`: false where there were too many to look
   *   at, or the time was over
   */
  private within(
    index: number,
    housing: number,
    from: number,
    to: number,
    most: number,
    looks: number,
  ): { pairs: readonly CostedPair[]; most: number; isWhole: boolean } {
    const { shells, rules, stations, housings, wishes } = this.model;
    const station = stations[index]!;
    const needed = this.others[station.family];
    const windows = this.windowsOf(index);
    const wish = wishes.get(index);
    const aimed = housings[housing]!.bore - station.journal - station.aim;
    const { tightWeight, mixedPenalty } = rules;
    // Beyond these deviations a pair costs more, whatever its halves cost.
    const rest = Math.max(0, most - windows.leastPrice);
    const tight = tightWeight > 0 ? Math.sqrt(rest / tightWeight) + 1 : Number.POSITIVE_INFINITY;
    const [first, last] = [Math.max(from, -tight), Math.min(to, Math.sqrt(rest) + 1)];
    const gapOf = (series: string | null) => aimed + offsetOfPair(station, series);
    const wallsOf = (series: string | null) => [gapOf(series) - last, gapOf(series) - first] as const;
    let found: CostedPair[] = [];
    let limit = most;
    let looked = 0;
    for (const upper of windows.uppers) {
      const { price, wall, series } = shells[upper]!;
      // Uppers come the cheapest first.
      if (price > limit) break;
      if (looked > looks || this.isOver()) return { ...this.fewer(found, needed), isWhole: false };
      windows.visit(upper, wallsOf, (lower) => {
        looked += 1;
        const other = shells[lower]!;
        const walls = wall + other.wall;
        const deviation = gapOf(series === other.series ? series : null) - walls;
        const plain =
          deviationCost(deviation, tightWeight) + price + other.price + (wall === other.wall ? 0 : mixedPenalty);
        if (plain > limit) return;
        const pair = pairOf(shells, upper, lower, rules);
        if (wish !== undefined && !isWished(wish, { ...pair, housing })) return;
        const flanges = station.endPlay === null ? 0 : endPlayCost(station.endPlay, pair, tightWeight);
        if (flanges !== null) found.push({ pair, deviation, cost: plain + flanges });
      });
      if (found.length > MOST_KEPT) {
        const fewer = this.fewer(found, needed);
        found = fewer.pairs;
        limit = Math.min(limit, fewer.most);
      }
    }
    return { ...this.fewer(found, needed), isWhole: true };
  }

  /**
   * The cheapest of some pairs, until `needed + 1` of them share no half; of each half with its `needed + 1` cheapest partners.
   *
   * @returns with what the last of them costs; Infinity where they are not enough
   */
  private fewer(pairs: readonly CostedPair[], needed: number): { pairs: CostedPair[]; most: number } {
    const kept: CostedPair[] = [];
    const above = new Map<number, number>();
    const below = new Map<number, number>();
    const taken = new Set<number>();
    let apart = 0;
    const sorted = [...pairs].sort(
      (a, b) => a.cost - b.cost || a.pair.upper - b.pair.upper || a.pair.lower - b.pair.lower,
    );
    for (const one of sorted) {
      const { upper, lower } = one.pair;
      const [partners, others] = [above.get(upper) ?? 0, below.get(lower) ?? 0];
      if (partners > needed || others > needed) continue;
      kept.push(one);
      above.set(upper, partners + 1);
      below.set(lower, others + 1);
      if (taken.has(upper) || taken.has(lower)) continue;
      taken.add(upper).add(lower);
      apart += 1;
      if (apart > needed) return { pairs: kept, most: one.cost };
    }
    return { pairs: kept, most: Number.POSITIVE_INFINITY };
  }
}
