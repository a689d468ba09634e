import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import type { Family } from '../../part/family.js';
import { eachFamily } from '../../part/family.js';
import type { Side } from '../../shell/side.js';
import type { FitRequest, FitShell } from '../format/fitRequest.js';

/** Costs are whole numbers of 10⁻⁶ µm² (1 nm²), so that sums and comparisons are exact. */
export const COST_PER_UM2 = 1_000_000;

/** The furthest a remedy moves a limit where the request does not say, as a share of the range between the limits. */
export const USUAL_LIMIT_SHARE = 0.5;

/** What `maxWallStep` is where it is left out: 0.013 mm, the same length whatever the unit. */
const USUAL_WALL_STEP = nanometres(13_000);

export interface ModelStation {
  readonly id: string;
  readonly engine: string;
  readonly family: Family;
  readonly journal: Nanometres;
  readonly aim: Nanometres;
  readonly low: Nanometres;
  readonly high: Nanometres;
  /** Assembly offset of a pair whose series has none of its own, and of a pair of two series. */
  readonly offset: Nanometres;
  /** Assembly offset of a pair whose halves are both of a series, by series. */
  readonly offsets: ReadonlyMap<string, Nanometres>;
  /** The place whose halves it takes; empty for none of its own. */
  readonly position: string;
  /** How far single readings lie below and above the journal. */
  readonly scatter: Scatter;
  /** True if it counts in the spread of its engine and family. */
  readonly inSpread: boolean;
  /** What the flanges of its halves have to do; null where they carry none. */
  readonly endPlay: ModelEndPlay | null;
}

/** The end play at a station, nm. */
export interface ModelEndPlay {
  /** End play without any flange: what was read, and the width that was fitted. */
  readonly free: number;
  readonly low: number;
  readonly high: number;
  readonly aim: number;
  /** Weight of its deviation beside that of the clearance; 0: it only decides between plans of equal cost. */
  readonly weight: number;
}

/** How far single readings lie from the size that is their mean, nm. */
export interface Scatter {
  readonly below: number;
  readonly above: number;
}

/**
 * Assembly offset of a pair at a station, nm.
 *
 * @param series the series of both halves; null for a pair of two series
 * @example offsetOfPair({ offset: 0, offsets: new Map([['Marsh', 3000]]) }, 'Marsh') // 3000
 */
export function offsetOfPair(
  { offset, offsets }: Pick<ModelStation, 'offset' | 'offsets'>,
  series: string | null,
): number {
  return (series === null ? undefined : offsets.get(series)) ?? offset;
}

/** What the limits of a station leave for the mean clearance with one housing: tightest and loosest keep them. */
export function limitsWith(
  { low, high, scatter }: Pick<ModelStation, 'low' | 'high' | 'scatter'>,
  housing: Pick<ModelHousing, 'scatter'>,
): { readonly low: number; readonly high: number } {
  return {
    low: low + housing.scatter.below + scatter.above,
    high: high - housing.scatter.above - scatter.below,
  };
}

export interface ModelHousing {
  readonly id: string;
  readonly engine: string;
  readonly family: Family;
  readonly bore: Nanometres;
  readonly scatter: Scatter;
  readonly station: string | null;
}

export interface ModelShell {
  readonly id: string;
  readonly family: Family;
  readonly series: string;
  readonly half: Side;
  readonly wall: Nanometres;
  /** Width over the flanges; null for a half without. */
  readonly width: number | null;
  /** Empty for standard. */
  readonly undersize: string;
  /** The places it fits; null for all. */
  readonly positions: readonly string[] | null;
  /** Infinity where as many as wanted can be had. */
  readonly stock: number;
  /** Price × pricePenalty, in cost units. */
  readonly price: number;
}

export interface ModelRules {
  readonly mixedHalves: boolean;
  readonly acrossSeries: boolean;
  readonly maxWallStep: Nanometres;
  readonly thinnerHalf: 'either' | 'upper' | 'lower';
  readonly maxSpread: Readonly<Record<Family, Nanometres | null>>;
  readonly tightWeight: number;
  /** In cost units. */
  readonly mixedPenalty: number;
  /** Furthest move of a limit that is offered as a remedy, as a share of the range between the limits. */
  readonly limitShare: number;
}

/** What is wished for one station, by position. */
export interface StationWish {
  /** The housing, upper and lower it keeps; null where it may choose. */
  readonly housing: number | null;
  readonly upper: number | null;
  readonly lower: number | null;
  readonly noHousings: readonly number[];
  readonly noShells: readonly number[];
  readonly unmixed: boolean;
}

/** A fit request in whole nanometres and whole cost units: what the search works on. */
export interface FitModel {
  readonly stations: readonly ModelStation[];
  readonly housings: readonly ModelHousing[];
  readonly shells: readonly ModelShell[];
  readonly rules: ModelRules;
  /** Stations with a wish, by position. */
  readonly wishes: ReadonlyMap<number, StationWish>;
}

function stationWishes({ stations, housings, shells, wishes }: FitRequest): Map<number, StationWish> {
  const found = new Map<number, StationWish>();
  if (wishes.hold.length === 0 && wishes.forbid.length === 0) return found;
  const places = (list: readonly { id: string }[]) => new Map(list.map(({ id }, at) => [id, at]));
  const [station, housing, shell] = [places(stations), places(housings), places(shells)];
  const add = (id: string, change: (wish: StationWish) => Partial<StationWish>) => {
    const at = station.get(id)!;
    const wish = found.get(at) ?? NO_WISH;
    found.set(at, { ...wish, ...change(wish) });
  };
  for (const hold of wishes.hold) {
    add(hold.station, (wish) => ({
      housing: hold.housing === undefined ? wish.housing : housing.get(hold.housing)!,
      upper: hold.upper === undefined ? wish.upper : shell.get(hold.upper)!,
      lower: hold.lower === undefined ? wish.lower : shell.get(hold.lower)!,
    }));
  }
  for (const forbid of wishes.forbid) {
    add(forbid.station, (wish) => ({
      noHousings: forbid.housing === undefined ? wish.noHousings : [...wish.noHousings, housing.get(forbid.housing)!],
      noShells: forbid.shell === undefined ? wish.noShells : [...wish.noShells, shell.get(forbid.shell)!],
      unmixed: wish.unmixed || forbid.mixed === true,
    }));
  }
  return found;
}

const NO_WISH: StationWish = {
  housing: null,
  upper: null,
  lower: null,
  noHousings: [],
  noShells: [],
  unmixed: false,
};

/** Whether a station's wish allows a housing and two halves there. */
export function isWished(
  wish: StationWish | undefined,
  choice: { housing: number; upper: number; lower: number; mixed: boolean },
): boolean {
  if (wish === undefined) return true;
  const keeps = (kept: number | null, taken: number) => kept === null || kept === taken;
  return (
    keeps(wish.housing, choice.housing) &&
    keeps(wish.upper, choice.upper) &&
    keeps(wish.lower, choice.lower) &&
    !wish.noHousings.includes(choice.housing) &&
    !wish.noShells.includes(choice.upper) &&
    !wish.noShells.includes(choice.lower) &&
    !(wish.unmixed && choice.mixed)
  );
}

/** One shell of a request in whole nanometres and whole cost units. */
export function modelShell(shell: FitShell, unit: Unit, pricePenalty: number): ModelShell {
  return {
    id: shell.id,
    family: shell.family,
    series: shell.series,
    half: shell.half,
    wall: lengthOfNumber(shell.wall, unit),
    width: shell.width === undefined ? null : lengthOfNumber(shell.width, unit),
    undersize: shell.undersize,
    positions: shell.positions ?? null,
    stock: shell.stock ?? Number.POSITIVE_INFINITY,
    price: Math.round(shell.price * pricePenalty * COST_PER_UM2),
  };
}

/** Turns a request's lengths into whole nanometres and its penalties into whole cost units. */
export function fitModelOf(request: FitRequest): FitModel {
  const length = (value: number) => lengthOfNumber(value, request.unit);
  const optional = (value: number | null) => (value === null ? null : length(value));
  const scatter = (size: number, readings: { low: number; high: number } | undefined): Scatter =>
    readings === undefined
      ? { below: 0, above: 0 }
      : { below: length(size) - length(readings.low), above: length(readings.high) - length(size) };
  const { rules } = request;
  return {
    wishes: stationWishes(request),
    stations: request.stations.map((station) => ({
      id: station.id,
      engine: station.engine,
      family: station.family,
      journal: length(station.journal),
      aim: length(station.aim),
      low: length(station.low),
      high: length(station.high),
      offset: length(station.offset),
      offsets: new Map(station.offsets.map(({ series, offset }) => [series, length(offset)])),
      position: station.position,
      scatter: scatter(station.journal, station.journalReadings),
      inSpread: station.inSpread,
      endPlay: station.endPlay
        ? {
            free: length(station.endPlay.reading) + length(station.endPlay.fitted),
            low: length(station.endPlay.low),
            high: length(station.endPlay.high),
            aim: length(station.endPlay.aim),
            weight: station.endPlay.weight,
          }
        : null,
    })),
    housings: request.housings.map(({ id, engine, family, bore, boreReadings, station }) => ({
      id,
      engine,
      family,
      bore: length(bore),
      scatter: scatter(bore, boreReadings),
      station,
    })),
    shells: request.shells.map((shell) => modelShell(shell, request.unit, rules.pricePenalty)),
    rules: {
      mixedHalves: rules.mixedHalves,
      acrossSeries: rules.acrossSeries,
      maxWallStep: rules.maxWallStep === undefined ? USUAL_WALL_STEP : length(rules.maxWallStep),
      thinnerHalf: rules.thinnerHalf,
      maxSpread: eachFamily((family) => optional(rules.maxSpread[family])),
      tightWeight: rules.tightWeight,
      mixedPenalty: Math.round(rules.mixedPenalty * COST_PER_UM2),
      limitShare: rules.limitShare ?? USUAL_LIMIT_SHARE,
    },
  };
}
