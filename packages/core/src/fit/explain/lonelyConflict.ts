import { numberOfLength } from '../../measure/formatLength.js';
import { lengthText } from '../../measure/lengthText.js';
import { nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import type { FitConflict } from '../format/fitPlan.js';
import {
  type FitModel,
  isWished,
  limitsWith,
  type ModelRules,
  type ModelShell,
  type StationWish,
} from '../model/fitModel.js';
import { type ShellPair, shellPairs } from '../model/shellPairs.js';
import { clearanceWith, housingsByStation, stationOptions } from '../model/stationOptions.js';

/** The rules at their widest: any two halves of the right side. */
function openRules(rules: ModelRules): ModelRules {
  return {
    ...rules,
    mixedHalves: true,
    acrossSeries: true,
    maxWallStep: nanometres(1_000_000_000),
    thinnerHalf: 'either',
  };
}

interface Reached {
  readonly pair: ShellPair;
  readonly housing: number;
  readonly clearance: number;
  /** How far outside the limits, nm: below zero too tight, above too loose, 0 inside. */
  readonly miss: number;
}

/** Everything that some halves could give at one station. */
function reachOf(
  model: FitModel,
  at: number,
  { rules, shells, wish }: { rules: ModelRules; shells: readonly ModelShell[]; wish: StationWish | undefined },
): Reached[] {
  const station = model.stations[at]!;
  const pairs = shellPairs(shells, station.family, rules, station.position);
  return housingsByStation(model)[at]!.flatMap((housing) => {
    const { low, high } = limitsWith(station, model.housings[housing]!);
    return pairs.flatMap((pair): Reached[] => {
      if (!isWished(wish, { ...pair, housing })) return [];
      const clearance = clearanceWith(station, model.housings[housing]!, pair);
      const miss = clearance < low ? clearance - low : clearance > high ? clearance - high : 0;
      return [{ pair, housing, clearance, miss }];
    });
  });
}

/**
 * Why a station is served by no housing and pair, whatever the others take: no housing, a wish, none in stock, a rule, or no pair in
 * range.
 *
 * @param at a station without options
 */
export function lonelyConflict(model: FitModel, at: number, unit: Unit): FitConflict {
  const station = model.stations[at]!;
  const housings = housingsByStation(model)[at]!;
  const base = { stations: [station.id], shells: [] };
  const length = (value: number) => lengthText(value, unit);
  const inUnit = (value: number) => numberOfLength(nanometres(value), unit);
  if (housings.length === 0) {
    return {
      ...base,
      kind: 'matching',
      message: `${station.id} has no housing: none is fixed to it and none of its engine and family is free.`,
      remedy: `Add the housing of ${station.id} with its bore.`,
    };
  }
  if (station.endPlay !== null) {
    const plain = model.stations.with(at, { ...station, endPlay: null });
    if (stationOptions({ ...model, stations: plain }).count(at) > 0) {
      const { free, low, high } = station.endPlay;
      const wider = length(free - low);
      return {
        ...base,
        kind: 'rules',
        message: `${station.id} can be brought inside its oil clearance, but no pair that does keeps the end play within ${length(low)} to ${length(high)}.`,
        remedy: `A pair of ${length(free - high)} to ${wider} over its flanges would do.`,
      };
    }
  }
  const wish = model.wishes.get(at);
  const shells = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
  const names = ({ pair }: Reached) => [model.shells[pair.upper]!.id, model.shells[pair.lower]!.id] as const;
  const isInside = ({ miss }: Reached) => miss === 0;
  if (wish !== undefined) {
    const free = stationOptions({ ...model, wishes: new Map([...model.wishes].filter(([other]) => other !== at)) });
    if (free.count(at) > 0) {
      return {
        ...base,
        kind: 'rules',
        message: `What is held or forbidden at ${station.id} leaves no pair inside its limits.`,
        remedy: `Let go of what is held or forbidden at ${station.id}.`,
      };
    }
  }
  // Stock is counted as unlimited from here on, so that "wrong wall" and "none left" are told apart.
  const outOfStock = reachOf(model, at, { rules: model.rules, shells, wish }).find(isInside);
  if (outOfStock) {
    const [upper, lower] = names(outOfStock);
    return {
      ...base,
      kind: 'stock-short',
      shells: [...new Set([upper, lower])],
      message: `${station.id} could only be served by halves that are out of stock, as ${upper} over ${lower}.`,
      remedy: `With ${upper} and ${lower} on hand it would run at ${length(outOfStock.clearance)}.`,
    };
  }
  const underOpenRules = reachOf(model, at, { rules: openRules(model.rules), shells, wish }).find(isInside);
  if (underOpenRules) {
    const [upper, lower] = names(underOpenRules);
    return {
      ...base,
      kind: 'rules',
      shells: [...new Set([upper, lower])],
      message: `${station.id} has no pair inside its limits that the rules allow.`,
      remedy: `${upper} over ${lower} would give ${length(underOpenRules.clearance)}; the rules on mixed halves, wall step, thinner side or series keep it out.`,
    };
  }
  const all = reachOf(model, at, { rules: openRules(model.rules), shells, wish: undefined });
  const forbidden = all.find(isInside);
  if (forbidden && wish !== undefined) {
    const [upper, lower] = names(forbidden);
    return {
      ...base,
      kind: 'rules',
      shells: [...new Set([upper, lower])],
      message: `${station.id} has no pair inside its limits with what is held or forbidden there.`,
      remedy: `${upper} over ${lower} would give ${length(forbidden.clearance)}; what is held or forbidden at ${station.id}, and the rules or the stock, keep it out.`,
    };
  }
  const [housing] = housings;
  const gap = model.housings[housing!]!.bore - station.journal + station.offset;
  const within = limitsWith(station, model.housings[housing!]!);
  const limits = `${length(station.low)} to ${length(station.high)}`;
  if (within.low > within.high) {
    return {
      ...base,
      kind: 'no-pair-in-range',
      message: `${station.id} and ${model.housings[housing!]!.id} are too far out of round or tapered: their readings spread further than the limits ${limits} are apart.`,
      remedy: `Read them again; if it is so, no shell cures it.`,
    };
  }
  const wanted = `Walls that sum to ${length(gap - within.high)} to ${length(gap - within.low)} would do${housings.length > 1 ? ` in ${model.housings[housing!]!.id}` : ''}.`;
  if (all.length === 0) {
    const place = station.position === '' ? '' : ` that fit ${station.position}`;
    return {
      ...base,
      kind: 'no-pair-in-range',
      message: `There is no pair of ${station.family} halves, upper and lower, for ${station.id}${place}.`,
      remedy: wanted,
    };
  }
  const nearest = all.reduce((best, next) => (Math.abs(next.miss) < Math.abs(best.miss) ? next : best));
  const [upper, lower] = names(nearest);
  const side = nearest.miss < 0 ? 'too tight' : 'too loose';
  return {
    ...base,
    kind: 'no-pair-in-range',
    shells: [...new Set([upper, lower])],
    nearest: {
      housing: model.housings[nearest.housing]!.id,
      upper,
      lower,
      clearance: inUnit(nearest.clearance),
      low: inUnit(station.low),
      high: inUnit(station.high),
      by: inUnit(nearest.miss),
    },
    message: `${station.id}: the nearest pair, ${upper} over ${lower}, gives ${length(nearest.clearance)}, ${length(Math.abs(nearest.miss))} ${side} (limits ${limits}).`,
    remedy: wanted,
  };
}
