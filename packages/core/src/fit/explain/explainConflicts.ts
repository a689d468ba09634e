import type { Unit } from '../../measure/unit.js';
import { KEEP_ALL, spreadGroups } from '../model/choiceProblem.js';
import type { FitModel, ModelStation } from '../model/fitModel.js';
import type { FitProblem } from '../model/fitProblem.js';
import type { Conflict } from '../model/fitSolution.js';
import type { StationOptions } from '../model/stationOptions.js';
import { type ChoiceLimits, within } from '../search/choiceLimits.js';
import { Explainer, NOT_FOUND } from './Explainer.js';
import { FitQuestions } from './FitQuestions.js';
import { lonelyConflict } from './lonelyConflict.js';
import { remediesFor } from './remedies.js';

/** What an explanation may take where there is a clock, ms: first for what is wrong, then for what would put it right. */
const FINDING_MS = 800;
const REMEDY_MS = 900;

/** Remedies are looked for in so many conflicts, the first ones. */
const MOST_REMEDIED = 8;

/** Maximum stations without any pair that are explained one by one. */
const MOST_LONELY = 60;

function conflictsOf(model: FitModel, options: StationOptions, unit: Unit, questions: FitQuestions): Conflict[] {
  const lonely = model.stations.flatMap((_, at) => (options.count(at) === 0 ? [at] : []));
  if (lonely.length > 0) return lonely.slice(0, MOST_LONELY).map((at) => lonelyConflict(model, at, unit));
  const explainer = new Explainer(model, options, unit, questions);
  const conflicts: Conflict[] = [];
  const { group, keys } = spreadGroups(model);
  const healthy: number[] = [];
  keys.forEach((_, at) => {
    const stations = group.flatMap((own, station) => (own === at ? [station] : []));
    // The whole is known not to fit.
    if (keys.length === 1 || questions.fits(model, stations, KEEP_ALL, options) === 'no')
      conflicts.push(...explainer.together(stations));
    else healthy.push(...stations);
  });
  if (conflicts.length > 0) return conflicts;
  return explainer.together(healthy.sort((a, b) => a - b));
}

/** Stations by position that conflicts name. */
function stationsOf(model: FitModel, conflicts: readonly Conflict[]): number[] {
  const named = new Set(conflicts.flatMap(({ stations }) => stations));
  return model.stations.flatMap(({ id }, at) => (named.has(id) ? [at] : []));
}

/**
 * Adds the remedies that were solved for. Those that make everything fit stand with the first conflict. Only where there are none,
 * each conflict has those that put it right by itself, in a list of their own: with one of them the whole still has no plan.
 */
function withRemedies(
  problem: FitProblem,
  model: FitModel,
  conflicts: readonly Conflict[],
  unit: Unit,
  questions: FitQuestions,
): Conflict[] {
  const all = model.stations.map((_, at) => at);
  const whole = remediesFor({ problem, model, scope: all, group: stationsOf(model, conflicts), unit, questions });
  if (whole.length > 0 || conflicts.length === 1) {
    return conflicts.map((conflict, at) => ({
      ...conflict,
      remedy: conflict.remedy === NOT_FOUND && whole[0] ? whole[0].message : conflict.remedy,
      remedies: at === 0 ? whole : [],
    }));
  }
  return conflicts.map((conflict, at) => {
    if (at >= MOST_REMEDIED) return conflict;
    const group = stationsOf(model, [conflict]);
    const isOf = (station: ModelStation) =>
      group.some(
        (other) => model.stations[other]!.engine === station.engine && model.stations[other]!.family === station.family,
      );
    const scope = group.length === 1 ? group : all.filter((station) => isOf(model.stations[station]!));
    return { ...conflict, partRemedies: remediesFor({ problem, model, scope, group, unit, questions }) };
  });
}

/**
 * Says why nothing fits: stations that no pair can serve first; otherwise, engine by engine where each fails alone or for
 * all together, the smallest group of stations that compete, and what would help. Remedies were solved for, not guessed. Within a
 * budget of its own: where that ends, groups come as they are then, marked as not shown to be minimal, and remedies are fewer.
 *
 * @param problem one that has no plan: remedies are applied to it
 * @param model its model, alike shells merged
 * @param options the `stationOptions` of the model
 */
export function explainConflicts(
  problem: FitProblem,
  model: FitModel,
  options: StationOptions,
  limits: ChoiceLimits = {},
): Conflict[] {
  const { unit } = problem;
  const finding = new FitQuestions(within(limits, FINDING_MS));
  const conflicts = conflictsOf(model, options, unit, finding);
  const curing = new FitQuestions(within(limits, REMEDY_MS), finding);
  const explained = withRemedies(problem, model, conflicts, unit, curing);
  const leftOut = [
    ...(finding.isCut ? ['the smallest group that does not fit'] : []),
    ...(curing.isCut ? ['some of what would put it right'] : []),
  ];
  if (leftOut.length === 0 || explained.length === 0) return explained;
  const [first, ...rest] = explained;
  return [{ ...first!, leftOut: `Not examined further: ${leftOut.join(', and ')}.` }, ...rest];
}
