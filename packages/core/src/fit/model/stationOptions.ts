import { CheapestPairs } from './CheapestPairs.js';
import type { Choices } from './choice.js';
import { type FitModel, isWished, limitsWith, type ModelStation, offsetOfPair } from './fitModel.js';
import { deviationCost, endPlayCost, type OptionsHeld } from './optionCost.js';
import { isOpenShell, type ShellPair, shellPairs } from './shellPairs.js';

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
  readonly holds: OptionsHeld;
  private readonly model: FitModel;

  constructor(model: FitModel, { start, cost, deviation, use }: Choices, holds: OptionsHeld = 'all') {
    this.holds = holds;
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

/** Pairs times housings that are listed one by one; beyond that only what a plan of least cost can need. */
const MOST_LISTED = 600_000;

/** How many pairs and housings the stations have to look at. */
function roomOf(model: FitModel, places: readonly (readonly number[])[]): number {
  const pairs = new Map<string, number>();
  return model.stations.reduce((sum, { family, position }, at) => {
    const key = `${family}|${position}`;
    let count = pairs.get(key);
    if (count === undefined) {
      const open = model.shells.filter((shell) => isOpenShell(shell, family, position));
      count = open.filter(({ half }) => half !== 'lower').length * open.filter(({ half }) => half !== 'upper').length;
      pairs.set(key, count);
    }
    return sum + count * places[at]!.length;
  }, 0);
}

/**
 * For each station, the housings and pairs that meet its limits, the rules and its wishes, in the order of housings and shells: every
 * one of them, or, of very long lists, those that a plan of least cost can need.
 *
 * @param isOver ends the listing of a long list early; it is `part` then
 * @param mostListed pairs times housings up to which every one is listed
 */
export function stationOptions(
  model: FitModel,
  isOver: () => boolean = () => false,
  mostListed: number = MOST_LISTED,
): StationOptions {
  const places = housingsByStation(model);
  const room = roomOf(model, places);
  return room > mostListed ? cheapestOptions(model, places, isOver) : everyOption(model, places, room);
}

/** Options as they are found, in flat arrays. */
class OptionList {
  private readonly start: Int32Array;
  private cost: Float64Array;
  private deviation: Float64Array;
  private use: [Int32Array, Int32Array, Int32Array];
  private readonly shells: number;
  private stations = 0;
  private count = 0;

  /** @param room options expected; more of them are taken in as well */
  constructor({ stations, shells }: FitModel, room: number) {
    this.shells = shells.length;
    this.start = new Int32Array(stations.length + 1);
    this.cost = new Float64Array(room);
    this.deviation = new Float64Array(room);
    this.use = [new Int32Array(room), new Int32Array(room), new Int32Array(room)];
  }

  add(housing: number, pair: ShellPair, deviation: number, cost: number): void {
    const at = this.count;
    if (at === this.cost.length) this.grow();
    this.cost[at] = cost;
    this.deviation[at] = deviation;
    this.use[0][at] = pair.upper;
    this.use[1][at] = pair.lower;
    this.use[2][at] = this.shells + housing;
    this.count = at + 1;
  }

  private grow(): void {
    const room = 2 * this.count + 64;
    const wider = <T extends Float64Array | Int32Array>(list: T, made: T): T => {
      made.set(list);
      return made;
    };
    this.cost = wider(this.cost, new Float64Array(room));
    this.deviation = wider(this.deviation, new Float64Array(room));
    const [upper, lower, housing] = this.use;
    this.use = [
      wider(upper, new Int32Array(room)),
      wider(lower, new Int32Array(room)),
      wider(housing, new Int32Array(room)),
    ];
  }

  endStation(): void {
    this.stations += 1;
    this.start[this.stations] = this.count;
  }

  done(): Choices {
    const { count } = this;
    const [upper, lower, housing] = this.use;
    return {
      start: this.start,
      cost: this.cost.subarray(0, count),
      deviation: this.deviation.subarray(0, count),
      use: [upper.subarray(0, count), lower.subarray(0, count), housing.subarray(0, count)],
    };
  }
}

function everyOption(model: FitModel, places: readonly (readonly number[])[], room: number): StationOptions {
  const { stations, housings, shells, rules, wishes } = model;
  const pairs = new Map<string, ShellPair[]>();
  const pairsAt = ({ family, position }: ModelStation) => {
    const key = `${family}|${position}`;
    const known = pairs.get(key) ?? shellPairs(shells, family, rules, position);
    pairs.set(key, known);
    return known;
  };
  const found = new OptionList(model, room);
  stations.forEach((station, index) => {
    const list = pairsAt(station);
    const wish = wishes.get(index);
    for (const housing of places[index]!) {
      const bare = housings[housing]!.bore - station.journal;
      const { low, high } = limitsWith(station, housings[housing]!);
      for (const pair of list) {
        const clearance = bare - pair.walls + offsetOfPair(station, pair.series);
        if (clearance < low || clearance > high) continue;
        if (wish !== undefined && !isWished(wish, { ...pair, housing })) continue;
        const flanges = station.endPlay === null ? 0 : endPlayCost(station.endPlay, pair, rules.tightWeight);
        if (flanges === null) continue;
        const miss = clearance - station.aim;
        found.add(housing, pair, miss, deviationCost(miss, rules.tightWeight) + pair.fixedCost + flanges);
      }
    }
    found.endStation();
  });
  return new StationOptions(model, found.done());
}

function cheapestOptions(
  model: FitModel,
  places: readonly (readonly number[])[],
  isOver: () => boolean,
): StationOptions {
  const { stations } = model;
  const cheapest = new CheapestPairs(model, isOver);
  const found = new OptionList(model, 1024);
  let holds: OptionsHeld = 'all';
  const lower = (to: OptionsHeld) => {
    if (to === 'part' || holds === 'all') holds = to;
  };
  stations.forEach((_, index) => {
    for (const housing of places[index]!) {
      if (isOver()) {
        lower('part');
        break;
      }
      const listed = cheapest.at(index, housing);
      if (listed.holds !== 'all') lower(listed.holds);
      for (const { pair, deviation, cost } of listed.pairs) found.add(housing, pair, deviation, cost);
    }
    found.endStation();
  });
  return new StationOptions(model, found.done(), holds);
}
