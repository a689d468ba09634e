import type { FitModel, ModelHousing, ModelStation } from './fitModel.js';
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
  /** What it takes: the upper, the lower, and the housing counted on behind the shells. */
  readonly uses: readonly [number, number, number];
}

/** The housings that may go to a station: its own if one is fixed there, else the free ones of its engine and family. */
export function housingsFor(model: FitModel, station: ModelStation): number[] {
  const here: number[] = [];
  const free: number[] = [];
  model.housings.forEach((housing, at) => {
    if (housing.station === station.id) here.push(at);
    else if (housing.station === null && housing.engine === station.engine && housing.family === station.family) {
      free.push(at);
    }
  });
  return here.length > 0 ? here : free;
}

/** Cost of a clearance that misses the aim by `deviation` nm, in whole cost units. */
export function deviationCost(deviation: number, tightWeight: number): number {
  return Math.round((deviation < 0 ? tightWeight : 1) * deviation * deviation);
}

/** `bore − journal − walls + offset` in nm: the oil clearance before it is compared with anything. */
export function clearanceWith(station: ModelStation, housing: ModelHousing, pair: ShellPair): number {
  return housing.bore - station.journal - pair.walls + station.offset;
}

/**
 * For each station, every housing and pair that meets its limits and the rules, cheapest first; equal costs in the order
 * of the request, so that the same request always gives the same plan.
 */
export function stationOptions(model: FitModel): StationOption[][] {
  const pairs = {
    main: shellPairs(model.shells, 'main', model.rules),
    rod: shellPairs(model.shells, 'rod', model.rules),
  };
  return model.stations.map((station) => {
    const options: StationOption[] = [];
    for (const housing of housingsFor(model, station)) {
      for (const pair of pairs[station.family]) {
        const clearance = clearanceWith(station, model.housings[housing]!, pair);
        if (clearance < station.low || clearance > station.high) continue;
        const deviation = clearance - station.aim;
        options.push({
          uses: [pair.upper, pair.lower, model.shells.length + housing],
          housing,
          upper: pair.upper,
          lower: pair.lower,
          clearance,
          deviation,
          mixed: pair.mixed,
          cost: deviationCost(deviation, model.rules.tightWeight) + pair.fixedCost,
        });
      }
    }
    return options.sort((a, b) => a.cost - b.cost);
  });
}
