import {
  type FitModel,
  limitsWith,
  type ModelRules,
  type ModelShell,
  offsetOfPair,
  type StationWish,
} from '../model/fitModel.js';
import { clearanceWith, endPlayWith } from '../model/optionCost.js';
import { PairWindows } from '../model/PairWindows.js';
import { pairOf, type ShellPair } from '../model/shellPairs.js';
import { housingsByStation } from '../model/stationOptions.js';

/** A pair in a housing, and how far it is outside the limits of the oil clearance. */
export interface NearPair {
  readonly pair: ShellPair;
  readonly housing: number;
  readonly clearance: number;
  /** Distance outside the limits, nm: below zero too tight, above too loose; 0: inside. */
  readonly miss: number;
}

export interface NearAsked {
  readonly rules: ModelRules;
  readonly shells: readonly ModelShell[];
  readonly wish: StationWish | undefined;
  /** True if the pair has to keep the end play of the station too, where it has one. */
  readonly keepsEndPlay: boolean;
}

/** The sides on which a half with the flange that counts may stand; null: no flange is asked for. */
type FlangeSide = 'upper' | 'lower' | null;

function windowsOf(model: FitModel, at: number, asked: NearAsked, flange: FlangeSide): PairWindows {
  const { family, position, endPlay } = model.stations[at]!;
  const { shells, wish, rules } = asked;
  const isWide = (shell: number) => {
    const { width } = shells[shell]!;
    return width !== null && width >= endPlay!.free - endPlay!.high;
  };
  const isAllowed = (shell: number, side: 'upper' | 'lower'): boolean => {
    if (wish?.noShells.includes(shell)) return false;
    const held = side === 'upper' ? wish?.upper : wish?.lower;
    if (held !== undefined && held !== null && held !== shell) return false;
    if (flange === null) return true;
    return (shells[shell]!.width ?? 0) <= endPlay!.free - endPlay!.low && (side !== flange || isWide(shell));
  };
  const ruled = wish?.unmixed ? { ...rules, mixedHalves: false } : rules;
  return new PairWindows(shells, family, ruled, position, isAllowed);
}

/**
 * The pair, of all that some halves could make at a station, that comes nearest to its limits; of those inside the one nearest the
 * aim. Time grows with the number of halves, not of pairs.
 *
 * @returns null when there is no pair
 */
export function nearestPair(model: FitModel, at: number, asked: NearAsked): NearPair | null {
  const station = model.stations[at]!;
  const { wish, shells } = asked;
  const sides: FlangeSide[] = asked.keepsEndPlay && station.endPlay !== null ? ['upper', 'lower'] : [null];
  const windows = sides.map((side) => windowsOf(model, at, asked, side));
  let best: NearPair | null = null;
  const off = ({ clearance }: NearPair) => Math.abs(clearance - station.aim);
  for (const housing of housingsByStation(model)[at]!) {
    if (wish?.noHousings.includes(housing) || (wish && wish.housing !== null && wish.housing !== housing)) continue;
    const { low, high } = limitsWith(station, model.housings[housing]!);
    const bare = model.housings[housing]!.bore - station.journal;
    const rangeOf = (series: string | null) => {
      const gap = bare + offsetOfPair(station, series);
      return { least: gap - high, most: gap - low, aim: gap - station.aim };
    };
    for (const window of windows) {
      for (const upper of window.uppers) {
        const lower = window.nearest(upper, rangeOf);
        if (lower === null) continue;
        const pair = pairOf(shells, upper, lower, asked.rules);
        const clearance = clearanceWith(station, model.housings[housing]!, pair);
        const miss = clearance < low ? clearance - low : clearance > high ? clearance - high : 0;
        const next = { pair, housing, clearance, miss };
        const [mine, theirs] = [Math.abs(miss), best === null ? Number.POSITIVE_INFINITY : Math.abs(best.miss)];
        if (best === null || mine < theirs || (mine === theirs && off(next) < off(best))) best = next;
      }
    }
  }
  return best;
}

/** The pair whose flanges come nearest to the end play of a station, whatever its oil clearance; null when no pair has flanges. */
export function nearestFlanges(
  model: FitModel,
  at: number,
  asked: Omit<NearAsked, 'keepsEndPlay'>,
): { readonly near: NearPair; readonly endPlay: number } | null {
  const station = model.stations[at]!;
  const { endPlay } = station;
  if (endPlay === null) return null;
  let best: { near: NearPair; endPlay: number; off: number } | null = null;
  const widths = new Set(
    asked.shells.flatMap(({ width, family }) => (width === null || family !== station.family ? [] : [width])),
  );
  for (const width of widths) {
    const left = endPlayWith(endPlay, { width })!;
    const off = left < endPlay.low ? endPlay.low - left : Math.max(0, left - endPlay.high);
    if (best !== null && off >= best.off) continue;
    // The limits moved to this width alone: a pair that keeps them has it.
    const exact = { ...endPlay, low: left, high: left };
    const moved = { ...model, stations: model.stations.with(at, { ...station, endPlay: exact }) };
    const near = nearestPair(moved, at, { ...asked, keepsEndPlay: true });
    if (near !== null) best = { near, endPlay: left, off };
  }
  return best;
}
