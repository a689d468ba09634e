import type { Nanometres } from '../../measure/nanometres.js';
import type { SizeBand } from '../../measure/sizeBand.js';
import type { Family } from '../../part/family.js';
import type { Side } from '../../shell/side.js';
import type { FitProblem, ProblemRules, ProblemShell, ProblemStation } from './fitProblem.js';

/** Costs are whole numbers of 10⁻⁶ µm² (1 nm²), so that sums and comparisons are exact. */
export const COST_PER_UM2 = 1_000_000;

export interface ModelStation {
  readonly id: string;
  /** What sentences call it. */
  readonly name: string;
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
  /** What sentences call it. */
  readonly name: string;
  readonly engine: string;
  readonly family: Family;
  readonly bore: Nanometres;
  readonly scatter: Scatter;
  readonly station: string | null;
}

export interface ModelShell {
  readonly id: string;
  /** What sentences call it. */
  readonly name: string;
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

/** The rules of a problem; the penalty in cost units. */
export type ModelRules = Omit<ProblemRules, 'pricePenalty'>;

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

/** A problem with everything by position and costs in whole units: what the search works on. */
export interface FitModel {
  readonly stations: readonly ModelStation[];
  readonly housings: readonly ModelHousing[];
  readonly shells: readonly ModelShell[];
  readonly rules: ModelRules;
  /** Stations with a wish, by position. */
  readonly wishes: ReadonlyMap<number, StationWish>;
}

function stationWishes({ stations, housings, shells, wishes }: FitProblem): Map<number, StationWish> {
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

/** True if a station's wish allows a housing and two halves there. */
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

/** One shell of a problem with its price in whole cost units. */
export function modelShell(shell: ProblemShell, pricePenalty: number): ModelShell {
  // Written out, so that all are of one shape: the search looks at thousands of them again and again.
  return {
    id: shell.id,
    name: shell.name,
    family: shell.family,
    series: shell.series,
    half: shell.half,
    wall: shell.wall,
    width: shell.width ?? null,
    undersize: shell.undersize,
    positions: shell.positions ?? null,
    stock: shell.stock ?? Number.POSITIVE_INFINITY,
    price: Math.round(shell.price * pricePenalty * COST_PER_UM2),
  };
}

/** How far readings lie from the size that is their mean; none of them: not at all. */
function scatter(size: Nanometres, readings: SizeBand | undefined): Scatter {
  return readings === undefined ? { below: 0, above: 0 } : { below: size - readings.low, above: readings.high - size };
}

function modelStation(station: ProblemStation): ModelStation {
  const { endPlay } = station;
  return {
    id: station.id,
    name: station.name,
    engine: station.engine,
    family: station.family,
    journal: station.journal,
    aim: station.aim,
    low: station.low,
    high: station.high,
    offset: station.offset,
    offsets: new Map(station.offsets.map(({ series, offset }) => [series, offset])),
    position: station.position,
    scatter: scatter(station.journal, station.journalReadings),
    inSpread: station.inSpread,
    endPlay: endPlay
      ? {
          free: endPlay.reading + endPlay.fitted,
          low: endPlay.low,
          high: endPlay.high,
          aim: endPlay.aim,
          weight: endPlay.weight,
        }
      : null,
  };
}

/** Puts a problem by position and its penalties in whole cost units. */
export function fitModelOf(problem: FitProblem): FitModel {
  const { rules } = problem;
  return {
    wishes: stationWishes(problem),
    stations: problem.stations.map(modelStation),
    housings: problem.housings.map(({ id, name, engine, family, bore, boreReadings, station }) => ({
      id,
      name,
      engine,
      family,
      bore,
      scatter: scatter(bore, boreReadings),
      station,
    })),
    shells: problem.shells.map((shell) => modelShell(shell, rules.pricePenalty)),
    rules: {
      mixedHalves: rules.mixedHalves,
      acrossSeries: rules.acrossSeries,
      maxWallStep: rules.maxWallStep,
      thinnerHalf: rules.thinnerHalf,
      maxSpread: rules.maxSpread,
      tightWeight: rules.tightWeight,
      mixedPenalty: Math.round(rules.mixedPenalty * COST_PER_UM2),
      limitShare: rules.limitShare,
    },
  };
}
