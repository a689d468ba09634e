import { numberOfLength } from '../measure/formatLength.js';
import { nanometres } from '../measure/nanometres.js';
import { type FitOptions, fit } from './fit.js';
import { fitModelOf } from './fitModel.js';
import type { PlannedStation } from './fitPlan.js';
import type { FitRequest, FitWishes } from './fitRequest.js';
import { housingsByStation, stationOptions } from './stationOptions.js';

/** Another way to serve a station, and what the whole would cost with it once the other stations have adapted. */
export interface Alternative extends Omit<PlannedStation, 'id'> {
  /** Least cost of all with this choice, µm²; null when the rest then no longer fits. */
  readonly cost: number | null;
}

/** A rod (or any housing) on a station: the least cost with it there, or why it cannot be. */
export interface Placement {
  readonly station: string;
  readonly housing: string;
  /** Least cost of all with the housing there, µm²; null when that cannot be. */
  readonly cost: number | null;
  /** Why it cannot be, in words; null when it can. */
  readonly reason: string | null;
}

type Hold = FitWishes['hold'][number];

function holding(request: FitRequest, hold: Hold): FitRequest {
  const others = request.wishes.hold.filter(({ station }) => station !== hold.station);
  return { ...request, wishes: { ...request.wishes, hold: [...others, hold] } };
}

/** The request with what is held at one station let go: everything that could be there is an alternative. */
function released(request: FitRequest, station: string): FitRequest {
  return {
    ...request,
    wishes: { ...request.wishes, hold: request.wishes.hold.filter((hold) => hold.station !== station) },
  };
}

/**
 * Every pair and housing that meets a station's own limits and rules, each with the least cost of the whole when it is held
 * there and the rest adapts. What is held at the station itself is let go; what is held elsewhere stays.
 *
 * @param station id of the station
 * @returns cheapest first; those with which the rest no longer fits come last
 */
export function alternativesAt(request: FitRequest, station: string, options: FitOptions = {}): Alternative[] {
  const open = released(request, station);
  const model = fitModelOf(open);
  const at = model.stations.findIndex(({ id }) => id === station);
  if (at < 0) throw new Error(`there is no station “${station}” in the request`);
  const length = (value: number) => numberOfLength(nanometres(value), request.unit);
  return stationOptions(model)
    .of(at)
    .map(({ housing, upper, lower, clearance, deviation, mixed }) => {
      const choice = {
        housing: model.housings[housing]!.id,
        upper: model.shells[upper]!.id,
        lower: model.shells[lower]!.id,
      };
      const { cost } = fitQuietly(holding(open, { station, ...choice }), options);
      return { ...choice, clearance: length(clearance), deviation: length(deviation), mixed, cost };
    })
    .sort((a, b) => (a.cost ?? Number.POSITIVE_INFINITY) - (b.cost ?? Number.POSITIVE_INFINITY));
}

/** The cost alone: no explanation when nothing fits. */
function fitQuietly(request: FitRequest, options: FitOptions): { cost: number | null } {
  return fit(request, { ...options, explain: false });
}

/**
 * Every free housing of one engine and family on every station it may serve: what the whole would cost with it kept there, or the
 * reason why it cannot be there.
 *
 * @returns in the order of stations, then housings
 */
export function placementsOf(
  request: FitRequest,
  { engine, family }: { engine: string; family: 'main' | 'rod' },
  options: FitOptions = {},
): Placement[] {
  const model = fitModelOf(request);
  const places = housingsByStation(model);
  return request.stations.flatMap((station, at) => {
    if (station.engine !== engine || station.family !== family) return [];
    return places[at]!.map((which) => {
      const housing = model.housings[which]!.id;
      const housings = request.housings.map((one) => (one.id === housing ? { ...one, station: station.id } : one));
      const plan = fit({ ...request, housings }, options);
      return {
        station: station.id,
        housing,
        cost: plan.cost,
        reason:
          plan.cost === null ? plan.conflicts.map(({ message, remedy }) => `${message} ${remedy}`).join(' ') : null,
      };
    });
  });
}
