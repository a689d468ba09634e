import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { Family } from '../../part/family.js';
import type { Kept } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import { stationOptions } from '../model/stationOptions.js';
import { type FitQuestions, withoutStock } from './FitQuestions.js';

/** The model with other spreads. */
export function withSpreads(model: FitModel, spreads: ReadonlyMap<Family, Nanometres | null>): FitModel {
  const maxSpread = { ...model.rules.maxSpread, ...Object.fromEntries(spreads) };
  return { ...model, rules: { ...model.rules, maxSpread } };
}

/**
 * The least spread of each of some families with which stations fit, one after the other, where it is more than is allowed now.
 *
 * @returns null when no spread helps, or the budget ended before that was known
 */
export function leastSpreads(
  questions: FitQuestions,
  model: FitModel,
  stations: readonly number[],
  kept: Kept,
  families: readonly Family[],
): Map<Family, Nanometres> | null {
  return questions.once(model, `spreads ${JSON.stringify([kept, stations, families])}`, () =>
    searched(questions, kept.stock ? model : withoutStock(model), stations, kept, families),
  );
}

function searched(
  questions: FitQuestions,
  model: FitModel,
  stations: readonly number[],
  kept: Kept,
  families: readonly Family[],
): Map<Family, Nanometres> | null {
  const options = stationOptions(model);
  const found = new Map<Family, Nanometres>();
  const open = new Map<Family, Nanometres | null>(families.map((family) => [family, null]));
  if (questions.fits(withSpreads(model, open), stations, kept, options) !== 'yes') return null;
  for (const family of families) {
    const now = model.rules.maxSpread[family];
    if (now === null) continue;
    let [lowest, highest] = [0, 0];
    for (const station of stations) {
      if (model.stations[station]!.family !== family) continue;
      for (const deviation of options.deviation.subarray(options.start[station]!, options.start[station + 1]!)) {
        lowest = Math.min(lowest, deviation);
        highest = Math.max(highest, deviation);
      }
    }
    let from: number = now;
    let to = Math.max(now, highest - lowest);
    while (from < to) {
      const middle = Math.floor((from + to) / 2);
      const tried = withSpreads(model, new Map([...open, ...found, [family, nanometres(middle)]]));
      const answer = questions.fits(tried, stations, kept, options);
      if (answer === 'unknown') return null;
      if (answer === 'yes') to = middle;
      else from = middle + 1;
    }
    found.set(family, nanometres(from));
  }
  return found;
}
