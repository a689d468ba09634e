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

/** The stations of one engine and family: what matching and spread are counted over. */
export function spreadGroups(model: FitModel): { group: number[]; keys: { engine: string; family: 'main' | 'rod' }[] } {
  const keys: { engine: string; family: 'main' | 'rod' }[] = [];
  const byKey = new Map<string, number>();
  const group = model.stations.map(({ engine, family }) => {
    const key = `${family}|${engine}`;
    let at = byKey.get(key);
    if (at === undefined) {
      at = keys.push({ engine, family }) - 1;
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
    spread: Float64Array.from(keys, ({ family }) =>
      kept.spread ? (model.rules.maxSpread[family] ?? Number.POSITIVE_INFINITY) : Number.POSITIVE_INFINITY,
    ),
  };
}
