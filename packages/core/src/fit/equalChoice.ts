import type { FitModel } from './model/fitModel.js';
import type { StationOptions } from './model/stationOptions.js';

/** How often each shell is used by the options that stations have taken. */
class Use {
  private readonly used = new Map<number, number>();

  constructor(
    private readonly model: FitModel,
    private readonly options: StationOptions,
    taken: Int32Array,
  ) {
    for (const option of taken) this.take(option, 1);
  }

  take(option: number, by: 1 | -1): void {
    for (const shell of this.shellsOf(option)) this.used.set(shell, (this.used.get(shell) ?? 0) + by);
  }

  shellsOf(option: number): [number, number] {
    return [this.options.use[0][option]!, this.options.use[1][option]!];
  }

  countOf(shell: number): number {
    return this.used.get(shell) ?? 0;
  }

  /** The shells in use, those of the fewest halves first. */
  inUse(): number[] {
    return [...this.used]
      .flatMap(([shell, count]) => (count > 0 ? [shell] : []))
      .sort((a, b) => this.countOf(a) - this.countOf(b) || a - b);
  }

  /** True if enough is left of both halves of an option for one more station. */
  isFree(option: number): boolean {
    this.take(option, 1);
    const fits = this.shellsOf(option).every((shell) => this.countOf(shell) <= this.model.shells[shell]!.stock);
    this.take(option, -1);
    return fits;
  }
}

/** The options of a station that are worth as much as one of them, in the same housing. */
function* equals({ start, cost, deviation, use }: StationOptions, station: number, to: number): Generator<number> {
  for (let option = start[station]!; option < start[station + 1]!; option += 1) {
    const isEqual = cost[option] === cost[to] && deviation[option] === deviation[to] && use[2][option] === use[2][to];
    if (isEqual && option !== to) yield option;
  }
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
  const taken = chosen.slice();
  const use = new Use(model, options, taken);
  const off = (station: number, option: number) => offEndPlay(model, options, station, option);
  const replace = (station: number, option: number) => {
    use.take(taken[station]!, -1);
    use.take(option, 1);
    taken[station] = option;
  };
  model.stations.forEach(({ endPlay }, station) => {
    if (endPlay === null) return;
    const before = taken[station]!;
    let best = before;
    use.take(before, -1);
    for (const option of equals(options, station, before)) {
      if (off(station, option) < off(station, best) && use.isFree(option)) best = option;
    }
    use.take(before, 1);
    if (best !== before) replace(station, best);
  });
  for (const shell of use.inUse()) {
    const before: [number, number][] = [];
    const users = [...taken.keys()].filter((station) => use.shellsOf(taken[station]!).includes(shell));
    const canGo = users.every((station) => {
      const own = taken[station]!;
      use.take(own, -1);
      let other: number | null = null;
      for (const option of equals(options, station, own)) {
        const halves = use.shellsOf(option);
        const isInUse = halves.every((half) => half !== shell && use.countOf(half) > 0);
        if (isInUse && off(station, option) <= off(station, own) && use.isFree(option)) {
          other = option;
          break;
        }
      }
      use.take(own, 1);
      if (other === null) return false;
      before.push([station, own]);
      replace(station, other);
      return true;
    });
    if (!canGo) for (const [station, own] of before) replace(station, own);
  }
  return taken;
}
