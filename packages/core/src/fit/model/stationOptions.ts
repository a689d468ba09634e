import type { Choices } from './choice.js';
import {
  type FitModel,
  isWished,
  limitsWith,
  type ModelEndPlay,
  type ModelHousing,
  type ModelStation,
} from './fitModel.js';
import { type ShellPair, shellPairs } from './shellPairs.js';

/** One way to fill a station: a housing and a pair of halves, all by position. */
export interface StationOption {
  readonly housing: number;
  readonly upper: number;
  readonly lower: number;
  /** Oil clearance, nm. */
  readonly clearance: number;
  /** Clearance − aim, nm. */
  readonly deviation: number;
  readonly mixed: boolean;
  /** Whole cost units. */
  readonly cost: number;
}

/** Every option of every station. What an option takes: its upper, its lower, its housing counted on behind the shells. */
export class StationOptions implements Choices {
  readonly start: Int32Array;
  readonly cost: Float64Array;
  readonly deviation: Float64Array;
  readonly use: readonly [Int32Array, Int32Array, Int32Array];
  private readonly model: FitModel;

  constructor(model: FitModel, { start, cost, deviation, use }: Choices) {
    this.model = model;
    this.start = start;
    this.cost = cost;
    this.deviation = deviation;
    this.use = use;
  }

  /** How many options a station has. */
  count(station: number): number {
    return this.start[station + 1]! - this.start[station]!;
  }

  /** The option at a position, written out. */
  at(station: number, option: number): StationOption {
    const { shells, stations } = this.model;
    const upper = this.use[0][option]!;
    const lower = this.use[1][option]!;
    const deviation = this.deviation[option]!;
    return {
      housing: this.use[2][option]! - shells.length,
      upper,
      lower,
      clearance: stations[station]!.aim + deviation,
      deviation,
      mixed: shells[upper]!.wall !== shells[lower]!.wall,
      cost: this.cost[option]!,
    };
  }

  /** All options of a station, written out, in the order of housings and shells. */
  of(station: number): StationOption[] {
    return Array.from({ length: this.count(station) }, (_, at) => this.at(station, this.start[station]! + at));
  }
}

/** Per station the housings that may go to it: its own if one is fixed there, else the free ones of its engine and family. */
export function housingsByStation(model: FitModel): readonly (readonly number[])[] {
  const own = new Map<string, number[]>();
  const free = new Map<string, number[]>();
  const put = (map: Map<string, number[]>, key: string, housing: number) => {
    const list = map.get(key);
    if (list) list.push(housing);
    else map.set(key, [housing]);
  };
  model.housings.forEach(({ station, engine, family }, housing) => {
    if (station === null) put(free, `${family}|${engine}`, housing);
    else put(own, station, housing);
  });
  return model.stations.map(({ id, engine, family }) => own.get(id) ?? free.get(`${family}|${engine}`) ?? []);
}

/** Cost of a clearance that misses the aim by `deviation` nm, in whole cost units. */
export function deviationCost(deviation: number, tightWeight: number): number {
  return Math.round((deviation < 0 ? tightWeight : 1) * deviation * deviation);
}

/** The end play that a pair leaves, nm; null where its halves have no flanges. */
export function endPlayWith({ free }: ModelEndPlay, { width }: Pick<ShellPair, 'width'>): number | null {
  return width === null ? null : free - width;
}

/** What a pair's flanges cost, in whole cost units; null where they do not keep the end play inside its limits. */
function endPlayCost(endPlay: ModelEndPlay, pair: ShellPair, tightWeight: number): number | null {
  const left = endPlayWith(endPlay, pair);
  if (left === null || left < endPlay.low || left > endPlay.high) return null;
  const off = left - endPlay.aim;
  return Math.round(endPlay.weight * (off < 0 ? tightWeight : 1) * off * off);
}

/** `bore − journal − walls + offset` in nm: the oil clearance before it is compared with anything. */
export function clearanceWith(station: ModelStation, housing: ModelHousing, pair: ShellPair): number {
  return housing.bore - station.journal - pair.walls + station.offset;
}

/** For each station, every housing and pair that meets its limits, the rules and its wishes, in the order of housings and shells. */
export function stationOptions(model: FitModel): StationOptions {
  const { stations, housings, shells, rules, wishes } = model;
  const pairs = new Map<string, ShellPair[]>();
  const pairsAt = ({ family, position }: ModelStation) => {
    const key = `${family}|${position}`;
    const known = pairs.get(key) ?? shellPairs(shells, family, rules, position);
    pairs.set(key, known);
    return known;
  };
  const places = housingsByStation(model);
  let room = 0;
  stations.forEach((station, index) => {
    room += places[index]!.length * pairsAt(station).length;
  });
  const start = new Int32Array(stations.length + 1);
  const cost = new Float64Array(room);
  const deviation = new Float64Array(room);
  const use = [new Int32Array(room), new Int32Array(room), new Int32Array(room)] as const;
  let at = 0;
  stations.forEach((station, index) => {
    const list = pairsAt(station);
    const wish = wishes.get(index);
    for (const housing of places[index]!) {
      const gap = housings[housing]!.bore - station.journal + station.offset;
      const { low, high } = limitsWith(station, housings[housing]!);
      const mostWalls = gap - low;
      const leastWalls = gap - high;
      const aimedWalls = gap - station.aim;
      for (let which = 0; which < list.length; which += 1) {
        const pair = list[which]!;
        const { walls } = pair;
        if (walls < leastWalls || walls > mostWalls) continue;
        if (wish !== undefined && !isWished(wish, { ...pair, housing })) continue;
        const flanges = station.endPlay === null ? 0 : endPlayCost(station.endPlay, pair, rules.tightWeight);
        if (flanges === null) continue;
        const miss = aimedWalls - walls;
        cost[at] = deviationCost(miss, rules.tightWeight) + pair.fixedCost + flanges;
        deviation[at] = miss;
        use[0][at] = pair.upper;
        use[1][at] = pair.lower;
        use[2][at] = shells.length + housing;
        at += 1;
      }
    }
    start[index + 1] = at;
  });
  return new StationOptions(model, {
    start,
    cost: cost.subarray(0, at),
    deviation: deviation.subarray(0, at),
    use: [use[0].subarray(0, at), use[1].subarray(0, at), use[2].subarray(0, at)],
  });
}
