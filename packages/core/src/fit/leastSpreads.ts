import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Kept } from './choiceProblem.js';
import type { FitQuestions } from './FitQuestions.js';
import type { FitModel } from './fitModel.js';
import type { Family } from './fitRequest.js';
import { stationOptions } from './stationOptions.js';

/** The model with other spreads. */
export function withSpreads(model: FitModel, spreads: ReadonlyMap<Family, Nanometres | null>): FitModel {
  const maxSpread = { ...model.rules.maxSpread, ...Object.fromEntries(spreads) };
  return { ...model, rules: { ...model.rules, maxSpread } };
}

/** Distinct differences, smallest first; of very many only every so many-th, the largest always. */
function widthsOf(deviations: readonly number[]): number[] {
  const distinct = [...new Set(deviations)].sort((a, b) => a - b);
  const widths = new Set<number>();
  for (const [at, low] of distinct.entries()) for (const high of distinct.slice(at)) widths.add(high - low);
  return [...widths].sort((a, b) => a - b);
}

/** More distinct deviations than this are not looked through. */
const MOST_DEVIATIONS = 2_000;

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
    searched(questions, model, stations, kept, families),
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
    const deviations = new Set<number>();
    for (const station of stations) {
      if (model.stations[station]!.family !== family) continue;
      for (const deviation of options.deviation.subarray(options.start[station]!, options.start[station + 1]!)) {
        deviations.add(deviation);
      }
    }
    if (deviations.size > MOST_DEVIATIONS) return null;
    const widths = [now, ...widthsOf([...deviations]).filter((width) => width > now)];
    let from = 0;
    let to = widths.length - 1;
    while (from < to) {
      const middle = (from + to) >> 1;
      const tried = withSpreads(model, new Map([...open, ...found, [family, nanometres(widths[middle]!)]]));
      const answer = questions.fits(tried, stations, kept, options);
      if (answer === 'unknown') return null;
      if (answer === 'yes') to = middle;
      else from = middle + 1;
    }
    found.set(family, nanometres(widths[from]!));
  }
  return found;
}
