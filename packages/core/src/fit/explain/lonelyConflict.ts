import { lengthText } from '../../measure/lengthText.js';
import { nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import { type FitModel, limitsWith, type ModelRules, offsetOfPair } from '../model/fitModel.js';
import type { Conflict } from '../model/fitSolution.js';
import { housingsByStation, stationOptions } from '../model/stationOptions.js';
import { type NearPair, nearestFlanges, nearestPair } from './nearestPair.js';

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

/**
 * Why a station is served by no housing and pair, whatever the others take: no housing, a wish, none in stock, a rule, or no pair in
 * range.
 *
 * @param at a station without options
 */
export function lonelyConflict(model: FitModel, at: number, unit: Unit): Conflict {
  const station = model.stations[at]!;
  const housings = housingsByStation(model)[at]!;
  const base = { stations: [station.id], shells: [] };
  const length = (value: number) => lengthText(value, unit);
  if (housings.length === 0) {
    return {
      ...base,
      kind: 'matching',
      message: `${station.name} has no housing: none is fixed to it, and none of its engine and family is free.`,
      remedy: `Add the housing of ${station.name} with its bore.`,
    };
  }
  const wish = model.wishes.get(at);
  const shells = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
  /** A pair as sentences call it, and its ids. */
  const pairOf = ({ pair }: NearPair) => {
    const [upper, lower] = [model.shells[pair.upper]!, model.shells[pair.lower]!];
    return { upper: upper.name, lower: lower.name, shells: [...new Set([upper.id, lower.id])] };
  };
  const inside = (rules: ModelRules, wished: typeof wish, keepsEndPlay = true): NearPair | null => {
    const near = nearestPair(model, at, { rules, shells, wish: wished, keepsEndPlay });
    return near?.miss === 0 ? near : null;
  };
  if (wish !== undefined) {
    const free = stationOptions({ ...model, wishes: new Map([...model.wishes].filter(([other]) => other !== at)) });
    if (free.count(at) > 0) {
      return {
        ...base,
        kind: 'rules',
        message: `The locks and exclusions at ${station.name} leave no pair in limits.`,
        remedy: `Remove locks and exclusions at ${station.name}.`,
      };
    }
  }
  // Stock is counted as unlimited from here on, so that "wrong wall" and "none left" are told apart.
  const outOfStock = inside(model.rules, wish);
  if (outOfStock) {
    const { upper, lower, shells: pair } = pairOf(outOfStock);
    return {
      ...base,
      kind: 'stock-short',
      shells: pair,
      message: `${station.name} could only be fitted with shells that are out of stock, as ${upper} over ${lower}.`,
      remedy: `With ${upper} and ${lower} on hand the clearance would be ${length(outOfStock.clearance)}.`,
    };
  }
  const open = openRules(model.rules);
  const underOpenRules = inside(open, wish);
  if (underOpenRules) {
    const { upper, lower, shells: pair } = pairOf(underOpenRules);
    return {
      ...base,
      kind: 'rules',
      shells: pair,
      message: `${station.name} has no pair inside its limits that the rules allow.`,
      remedy: `${upper} over ${lower} would give ${length(underOpenRules.clearance)}, but the rules on mixed pairs, wall step, thinner side or series exclude it.`,
    };
  }
  const forbidden = wish === undefined ? null : inside(open, undefined);
  if (forbidden) {
    const { upper, lower, shells: pair } = pairOf(forbidden);
    return {
      ...base,
      kind: 'rules',
      shells: pair,
      message: `${station.name} has no pair in limits with the locks and exclusions there.`,
      remedy: `${upper} over ${lower} would give ${length(forbidden.clearance)}, but the locks and exclusions at ${station.name}, the rules or the stock exclude it.`,
    };
  }
  const [housing] = housings;
  const within = limitsWith(station, model.housings[housing!]!);
  const limits = `${length(station.low)} to ${length(station.high)}`;
  if (within.low > within.high) {
    return {
      ...base,
      kind: 'no-pair-in-range',
      message: `${station.name} and ${model.housings[housing!]!.name} are too far out of round or tapered: their readings spread further than the limits ${limits} are apart.`,
      remedy: 'Measure again. If the sizes are right, no shell will fit.',
    };
  }
  const series = [...new Set(shells.flatMap((shell) => (shell.family === station.family ? [shell.series] : [])))];
  const gap =
    model.housings[housing!]!.bore - station.journal + offsetOfPair(station, series.length === 1 ? series[0]! : null);
  const walls = `walls that sum to ${length(gap - within.high)} to ${length(gap - within.low)}`;
  const where = housings.length > 1 ? ` in ${model.housings[housing!]!.name}` : '';
  const inHousing = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)} would do${where}.`;
  const place = station.position === '' ? '' : ` that fit ${station.position}`;
  const any = nearestPair(model, at, { rules: open, shells, wish: undefined, keepsEndPlay: false });
  if (any === null) {
    return {
      ...base,
      kind: 'no-pair-in-range',
      message: `No ${station.family} shells, upper and lower, for ${station.name}${place}.`,
      remedy: inHousing(walls),
    };
  }
  const { endPlay } = station;
  if (endPlay !== null) {
    const flanges = nearestFlanges(model, at, { rules: open, shells, wish: undefined });
    const within = `${length(endPlay.low)} to ${length(endPlay.high)}`;
    const wide = `a pair ${length(endPlay.free - endPlay.high)} to ${length(endPlay.free - endPlay.low)} over its flanges`;
    const isServed = any.miss === 0;
    const wanted = inHousing(isServed ? wide : `${wide}, with ${walls},`);
    if (flanges === null) {
      return {
        ...base,
        kind: 'no-pair-in-range',
        message: `${station.name} needs a flanged pair for its end play of ${within}, and no shell${place} has flanges.`,
        remedy: wanted,
      };
    }
    const { upper, lower, shells: pair } = pairOf(flanges.near);
    const keeps = flanges.endPlay >= endPlay.low && flanges.endPlay <= endPlay.high;
    if (!keeps) {
      const { clearance, miss } = flanges.near;
      const also =
        miss === 0
          ? ''
          : ` Its oil clearance of ${length(clearance)} would be ${length(Math.abs(miss))} ${miss < 0 ? 'too tight' : 'too loose'} as well.`;
      return {
        ...base,
        kind: 'no-pair-in-range',
        shells: pair,
        message: `${station.name}: no pair gives an end play of ${within}; the nearest, ${upper} over ${lower}, gives ${length(flanges.endPlay)}.${also}`,
        remedy: wanted,
      };
    }
    if (isServed) {
      return {
        ...base,
        kind: 'no-pair-in-range',
        shells: pair,
        message: `${station.name} fits its oil clearance, but no such pair gives an end play of ${within}.`,
        remedy: inHousing(`${wide}, with ${walls},`),
      };
    }
  }
  const nearest = nearestPair(model, at, { rules: open, shells, wish: undefined, keepsEndPlay: true }) ?? any;
  const { upper, lower, shells: pair } = pairOf(nearest);
  const side = nearest.miss < 0 ? 'too tight' : 'too loose';
  const kept =
    endPlay === null ? '' : ` of those with an end play of ${length(endPlay.low)} to ${length(endPlay.high)}`;
  return {
    ...base,
    kind: 'no-pair-in-range',
    shells: pair,
    nearest: {
      housing: model.housings[nearest.housing]!.id,
      upper: model.shells[nearest.pair.upper]!.id,
      lower: model.shells[nearest.pair.lower]!.id,
      clearance: nanometres(nearest.clearance),
      low: station.low,
      high: station.high,
      by: nanometres(nearest.miss),
    },
    message: `${station.name}: the nearest pair${kept}, ${upper} over ${lower}, gives ${length(nearest.clearance)}, ${length(Math.abs(nearest.miss))} ${side} (limits ${limits}).`,
    remedy: inHousing(
      endPlay === null
        ? walls
        : `${walls}, ${length(endPlay.free - endPlay.high)} to ${length(endPlay.free - endPlay.low)} over the flanges,`,
    ),
  };
}
