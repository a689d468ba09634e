import { nanometres } from '../measure/nanometres.js';
import { FAMILIES } from '../part/family.js';
import { FitQuestions } from './explain/FitQuestions.js';
import { leastSpreads, withSpreads } from './explain/leastSpreads.js';
import { type FitOptions, fit } from './fit.js';
import { KEEP_ALL } from './model/choiceProblem.js';
import { fitModelOf } from './model/fitModel.js';
import type { FitProblem, ProblemShell } from './model/fitProblem.js';
import type { FitSolution } from './model/fitSolution.js';
import { mergedShells } from './model/mergedShells.js';
import { within } from './search/choiceLimits.js';

/** The plans that a fitter weighs against each other. */
export interface PlanVariants {
  /** With the halves on hand. */
  readonly onHand: FitSolution;
  /** With any number of every shell on the list. */
  readonly orderable: FitSolution;
  /** With the halves on hand and equal walls in every station. */
  readonly unmixed: FitSolution;
  /** With the halves on hand and the least spread that can be had; among those the least cost. */
  readonly evenest: FitSolution;
}

/** Halves that a plan uses beyond what is on hand, in the order of the shells. */
export function halvesToOrder(problem: FitProblem, plan: FitSolution): { shell: ProblemShell; count: number }[] {
  const used = new Map(plan.shellsUsed.map(({ id, count }) => [id, count]));
  return problem.shells.flatMap((shell) => {
    const missing = shell.stock === null ? 0 : (used.get(shell.id) ?? 0) - shell.stock;
    return missing > 0 ? [{ shell, count: missing }] : [];
  });
}

/** The same problem with as many halves of each shell as wanted. */
export function anythingOrderable(problem: FitProblem): FitProblem {
  return { ...problem, shells: problem.shells.map((shell) => ({ ...shell, stock: null })) };
}

/** What finding the least spread may take where there is a clock, ms. */
const EVENEST_MS = 450;

/** The problem whose plan is the evenest: each family held to the least spread it can have, mains first. */
function evenest(problem: FitProblem, options: FitOptions): FitProblem {
  const { model } = mergedShells(fitModelOf(problem));
  const families = FAMILIES.filter((family) => model.stations.some((one) => one.family === family));
  const even = withSpreads(model, new Map(families.map((family) => [family, nanometres(0)])));
  const questions = new FitQuestions(within(options, EVENEST_MS));
  const all = model.stations.map((_, at) => at);
  const spreads = leastSpreads(questions, even, all, KEEP_ALL, families);
  if (spreads === null) return problem;
  const maxSpread = { ...problem.rules.maxSpread, ...Object.fromEntries(spreads) };
  return { ...problem, rules: { ...problem.rules, maxSpread } };
}

/** What each of the other plans may take where there is a clock, ms. */
const ASIDE_MS = 450;

/** Solves a problem in the ways that a fitter weighs against each other. */
export function planVariants(problem: FitProblem, options: FitOptions = {}): PlanVariants {
  return {
    onHand: fit(problem, options),
    orderable: fit(anythingOrderable(problem), within(options, ASIDE_MS)),
    unmixed: fit({ ...problem, rules: { ...problem.rules, mixedHalves: false } }, within(options, ASIDE_MS)),
    evenest: fit(evenest(problem, options), within(options, ASIDE_MS)),
  };
}
