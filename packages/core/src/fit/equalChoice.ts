import type { FitModel } from './model/fitModel.js';
import type { StationOptions } from './model/stationOptions.js';

/** How often each shell is used by the options that stations have taken. */
class Use {
  private readonly counts: Int32Array;
  private readonly upper: Int32Array;
  private readonly lower: Int32Array;

  constructor(
    private readonly shells: FitModel['shells'],
    { use }: StationOptions,
    taken: Int32Array,
  ) {
    this.counts = new Int32Array(shells.length);
    [this.upper, this.lower] = use;
    for (const option of taken) this.take(option, 1);
  }

  take(option: number, by: 1 | -1): void {
    this.counts[this.upper[option]!]! += by;
    this.counts[this.lower[option]!]! += by;
  }

  halvesOf(option: number): readonly [number, number] {
    return [this.upper[option]!, this.lower[option]!];
  }

  isOf(option: number, shell: number): boolean {
    return this.upper[option] === shell || this.lower[option] === shell;
  }

  /** True if both halves of an option are used by some station. */
  isInUse(option: number): boolean {
    return this.counts[this.upper[option]!]! > 0 && this.counts[this.lower[option]!]! > 0;
  }

  /** The shells in use, those of the fewest halves first. */
  inUse(): number[] {
    const used: number[] = [];
    for (let shell = 0; shell < this.counts.length; shell += 1) if (this.counts[shell]! > 0) used.push(shell);
    return used.sort((one, other) => this.counts[one]! - this.counts[other]! || one - other);
  }

  /** True if enough is left of both halves of an option for one more station. */
  isFree(option: number): boolean {
    const [upper, lower] = [this.upper[option]!, this.lower[option]!];
    const isLeft = (shell: number, times: number) => this.counts[shell]! + times <= this.shells[shell]!.stock;
    return upper === lower ? isLeft(upper, 2) : isLeft(upper, 1) && isLeft(lower, 1);
  }
}

/**
 * Per station the other options that could be taken instead: worth as much as the one taken, in the same housing, and of halves that are in use;
 * where flanges set the end play, of any halves. Null where no station has any.
 */
function equalOptions(
  { stations, shells }: FitModel,
  { start, cost, deviation, use: [upper, lower, housing] }: StationOptions,
  taken: Int32Array,
): number[][] | null {
  const isUsed = new Uint8Array(shells.length);
  for (const option of taken) {
    isUsed[upper[option]!] = 1;
    isUsed[lower[option]!] = 1;
  }
  let hasAny = false;
  const lists: number[][] = [];
  for (let station = 0; station < taken.length; station += 1) {
    const own = taken[station]!;
    const isAnyHalf = stations[station]!.endPlay !== null;
    const list: number[] = [];
    for (let option = start[station]!; option < start[station + 1]!; option += 1) {
      if (cost[option] !== cost[own] || option === own) continue;
      if (deviation[option] !== deviation[own] || housing[option] !== housing[own]) continue;
      if (isAnyHalf || (isUsed[upper[option]!] === 1 && isUsed[lower[option]!] === 1)) list.push(option);
    }
    hasAny ||= list.length > 0;
    lists.push(list);
  }
  return hasAny ? lists : null;
}

/** How far the end play is off its aim with an option, nm; 0 where its flanges do not set it. */
function offEndPlay({ stations, shells }: FitModel, { use }: StationOptions, station: number, option: number): number {
  const { endPlay } = stations[station]!;
  if (endPlay === null) return 0;
  const width = Math.max(shells[use[0][option]!]!.width ?? 0, shells[use[1][option]!]!.width ?? 0);
  return Math.abs(endPlay.free - width - endPlay.aim);
}

/**
 * Of choices of one cost the one that a fitter would take: first the flanges that leave the end play nearest its aim, then the fewest part
 * numbers. Station by station another pair in the same housing with the same deviation and cost, where enough is left of its halves; a part
 * number goes where every station that uses it can do with others that are in use. What only decides between equals is no part of the cost.
 * The part numbers left are few, not proven the fewest. Common practice.
 *
 * @param chosen per station its option
 * @returns options of the same cost, per station
 */
export function equalChoice(model: FitModel, options: StationOptions, chosen: Int32Array): Int32Array {
  const equal = equalOptions(model, options, chosen);
  if (equal === null) return chosen;
  const taken = chosen.slice();
  const use = new Use(model.shells, options, taken);
  const off = (station: number, option: number) => offEndPlay(model, options, station, option);
  /** What is worth as much as the option taken: those found at first, and that one itself where another was taken since. */
  const equals = (station: number) =>
    taken[station] === chosen[station] ? equal[station]! : [chosen[station]!, ...equal[station]!];
  // Every station that has used a shell, some of them no longer.
  const users = new Map<number, number[]>();
  const note = (station: number) => {
    for (const shell of use.halvesOf(taken[station]!)) {
      const list = users.get(shell);
      if (list === undefined) users.set(shell, [station]);
      else if (list.at(-1) !== station) list.push(station);
    }
  };
  taken.forEach((_, station) => {
    note(station);
  });
  const replace = (station: number, option: number) => {
    use.take(taken[station]!, -1);
    use.take(option, 1);
    taken[station] = option;
    note(station);
  };
  model.stations.forEach(({ endPlay }, station) => {
    if (endPlay === null) return;
    const before = taken[station]!;
    let best = before;
    use.take(before, -1);
    for (const option of equals(station)) {
      if (off(station, option) < off(station, best) && use.isFree(option)) best = option;
    }
    use.take(before, 1);
    if (best !== before) replace(station, best);
  });
  for (const shell of use.inUse()) {
    const before: [number, number][] = [];
    let canGo = true;
    for (const station of users.get(shell)!) {
      const own = taken[station]!;
      if (!use.isOf(own, shell)) continue;
      use.take(own, -1);
      const other = equals(station).find(
        (option) =>
          !use.isOf(option, shell) &&
          use.isInUse(option) &&
          off(station, option) <= off(station, own) &&
          use.isFree(option),
      );
      use.take(own, 1);
      if (other === undefined) {
        canGo = false;
        break;
      }
      before.push([station, own]);
      replace(station, other);
    }
    if (!canGo) for (const [station, own] of before) replace(station, own);
  }
  return taken;
}
