import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family, FitRequest, Half } from './fitRequest.js';

/** Costs are whole numbers of 10⁻⁶ µm² (1 nm²), so that sums and comparisons are exact. */
export const COST_PER_UM2 = 1_000_000;

export interface ModelStation {
  readonly id: string;
  readonly engine: string;
  readonly family: Family;
  readonly journal: Nanometres;
  readonly aim: Nanometres;
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly offset: Nanometres;
}

export interface ModelHousing {
  readonly id: string;
  readonly engine: string;
  readonly family: Family;
  readonly bore: Nanometres;
  readonly station: string | null;
}

export interface ModelShell {
  readonly id: string;
  readonly family: Family;
  readonly series: string;
  readonly half: Half;
  readonly wall: Nanometres;
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
}

/** A fit request in whole nanometres and whole cost units: what the search works on. */
export interface FitModel {
  readonly stations: readonly ModelStation[];
  readonly housings: readonly ModelHousing[];
  readonly shells: readonly ModelShell[];
  readonly rules: ModelRules;
}

/** Turns a request's lengths into whole nanometres and its penalties into whole cost units. */
export function fitModelOf(request: FitRequest): FitModel {
  const length = (value: number) => lengthOfNumber(value, request.unit);
  const millimetres = (value: number | null) => (value === null ? null : lengthOfNumber(value, 'mm'));
  const { rules } = request;
  return {
    stations: request.stations.map((station) => ({
      id: station.id,
      engine: station.engine,
      family: station.family,
      journal: length(station.journal),
      aim: length(station.aim),
      low: length(station.low),
      high: length(station.high),
      offset: length(station.offset),
    })),
    housings: request.housings.map((housing) => ({ ...housing, bore: length(housing.bore) })),
    shells: request.shells.map((shell) => ({
      id: shell.id,
      family: shell.family,
      series: shell.series,
      half: shell.half,
      wall: length(shell.wall),
      stock: shell.stock ?? Number.POSITIVE_INFINITY,
      price: Math.round(shell.price * rules.pricePenalty * COST_PER_UM2),
    })),
    rules: {
      mixedHalves: rules.mixedHalves,
      acrossSeries: rules.acrossSeries,
      maxWallStep: millimetres(rules.maxWallStep) ?? nanometres(0),
      thinnerHalf: rules.thinnerHalf,
      maxSpread: { main: millimetres(rules.maxSpread.main), rod: millimetres(rules.maxSpread.rod) },
      tightWeight: rules.tightWeight,
      mixedPenalty: Math.round(rules.mixedPenalty * COST_PER_UM2),
    },
  };
}
