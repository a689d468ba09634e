import type { Family } from '../../part/family.js';
import type { ChoiceProblem } from './choice.js';
import type { FitModel } from './fitModel.js';
import type { StationOptions } from './stationOptions.js';

/** Which of the model's constraints the search keeps; conflicts are explained by dropping one at a time. */
export interface Kept {
  readonly stock: boolean;
  readonly housings: boolean;
  readonly spread: boolean;
}

export const KEEP_ALL: Kept = { stock: true, housings: true, spread: true };

/** Stations of one engine and family that count in its spread, or those that do not. */
export interface SpreadKey {
  readonly engine: string;
  readonly family: Family;
  readonly inSpread: boolean;
}

/** The stations of one engine and family: what the spread is counted over; those that do not count in it in a group of their own. */
export function spreadGroups(model: FitModel): { group: number[]; keys: SpreadKey[] } {
  const keys: SpreadKey[] = [];
  const byKey = new Map<string, number>();
  const group = model.stations.map(({ engine, family, inSpread }) => {
    const key = `${family}|${inSpread}|${engine}`;
    let at = byKey.get(key);
    if (at === undefined) {
      at = keys.push({ engine, family, inSpread }) - 1;
      byKey.set(key, at);
    }
    return at;
  });
  return { group, keys };
}

/** States a model as a choice of one option a station: shells are resources with their stock, each housing one with capacity 1. */
export function choiceProblem(model: FitModel, options: StationOptions, kept: Kept = KEEP_ALL): ChoiceProblem {
  const { group, keys } = spreadGroups(model);
  const shells = model.shells.length;
  const capacity = new Float64Array(shells + model.housings.length);
  for (let at = 0; at < shells; at += 1) {
    capacity[at] = kept.stock ? model.shells[at]!.stock : Number.POSITIVE_INFINITY;
  }
  capacity.fill(kept.housings ? 1 : Number.POSITIVE_INFINITY, shells);
  return {
    start: options.start,
    cost: options.cost,
    deviation: options.deviation,
    use: options.use,
    capacity,
    group: Int32Array.from(group),
    spread: Float64Array.from(
      keys,
      ({ family, inSpread }) =>
        (kept.spread && inSpread ? model.rules.maxSpread[family] : null) ?? Number.POSITIVE_INFINITY,
    ),
  };
}
