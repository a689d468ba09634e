import { lengthText } from '../../measure/lengthText.js';
import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { Family } from '../../part/family.js';
import { FAMILIES } from '../../part/family.js';
import { KEEP_ALL } from '../model/choiceProblem.js';
import type { ChangedRules } from '../model/fitSolution.js';
import { fewestHalves } from './fewestHalves.js';
import { leastSpreads, withSpreads } from './leastSpreads.js';
import { type Found, listed, remedy, type Trouble } from './trouble.js';

export function rulesChanged(trouble: Trouble): Found {
  const { model, unit } = trouble;
  const { rules } = model;
  const tries: { change: ChangedRules; message: string }[] = [];
  if (!rules.mixedHalves) {
    tries.push({ change: { mixedHalves: true }, message: 'Allow mixed pairs.' });
  }
  if (rules.thinnerHalf !== 'either') {
    tries.push({
      change: { thinnerHalf: 'either' },
      message: 'Let the thinner shell go to either side.',
    });
  }
  if (!rules.acrossSeries) {
    tries.push({
      change: { acrossSeries: true },
      message: 'Allow shells of different series in a station.',
    });
  }
  const simple = tries.map(({ message, change }) => remedy('rule', message, { rules: change }));
  const step = rules.mixedHalves ? leastWallStep(trouble) : null;
  const stepped =
    step === null
      ? []
      : [
          remedy(
            'rule',
            `Allow a wall step of ${lengthText(step, unit)} in a station (now ${lengthText(rules.maxWallStep, unit)}).`,
            { rules: { maxWallStep: step } },
          ),
        ];
  return [...simple, ...stepped, ...spreadsWidened(trouble)];
}

/** The least wall step beyond the present one that would do; null when none does. */
function leastWallStep(trouble: Trouble): Nanometres | null {
  const { model, questions, scope } = trouble;
  let [thinnest, thickest] = [Number.POSITIVE_INFINITY, 0];
  for (const { wall } of model.shells) {
    thinnest = Math.min(thinnest, wall);
    thickest = Math.max(thickest, wall);
  }
  const at = (step: number) =>
    questions.fits({ ...model, rules: { ...model.rules, maxWallStep: nanometres(step) } }, scope);
  let from = model.rules.maxWallStep + 1;
  let to = thickest - thinnest;
  if (to < from || at(to) !== 'yes') return null;
  while (from < to) {
    const middle = Math.floor((from + to) / 2);
    const answer = at(middle);
    if (answer === 'unknown') return null;
    if (answer === 'yes') to = middle;
    else from = middle + 1;
  }
  return nanometres(from);
}

/** A wider spread with the halves there are; failing that, a wider one with halves to get as well. */
function spreadsWidened(trouble: Trouble): Found {
  const { model, scope, unit, questions } = trouble;
  const families = FAMILIES.filter(
    (family) => model.rules.maxSpread[family] !== null && scope.some((at) => model.stations[at]!.family === family),
  );
  if (families.length === 0) return [];
  const widened = (spreads: ReadonlyMap<Family, Nanometres>): { rules: ChangedRules; text: string } => {
    const wider = [...spreads].filter(([family, width]) => width > model.rules.maxSpread[family]!);
    const maxSpread = Object.fromEntries(wider);
    const text = wider.map(
      ([family, width]) =>
        `a spread of ${lengthText(width, unit)} among the ${family}s (now ${lengthText(model.rules.maxSpread[family]!, unit)})`,
    );
    return { rules: { maxSpread }, text: text.join(' and ') };
  };
  const alone = leastSpreads(questions, model, scope, KEEP_ALL, families);
  if (alone) {
    const { rules, text } = widened(alone);
    return text === '' ? [] : [remedy('rule', `Allow ${text}.`, { rules })];
  }
  const withHalves = leastSpreads(questions, model, scope, { ...KEEP_ALL, stock: false }, families);
  if (!withHalves) return [];
  const { rules, text } = widened(withHalves);
  if (text === '') return [];
  const missing = fewestHalves(questions, withSpreads(model, withHalves), scope, KEEP_ALL);
  if (missing === null) return [];
  const get = listed(model, missing);
  return [remedy('rule', `Allow ${text} and get ${get.text}.`, { rules, shells: get.shells })];
}
