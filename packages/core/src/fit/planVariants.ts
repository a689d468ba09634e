import { numberOfLength } from '../measure/formatLength.js';
import { nanometres } from '../measure/nanometres.js';
import { FAMILIES } from '../part/family.js';
import { FitQuestions } from './explain/FitQuestions.js';
import { leastSpreads, withSpreads } from './explain/leastSpreads.js';
import { type FitOptions, fit } from './fit.js';
import type { FitPlan } from './format/fitPlan.js';
import type { FitRequest, FitShell } from './format/fitRequest.js';
import { KEEP_ALL } from './model/choiceProblem.js';
import { fitModelOf } from './model/fitModel.js';
import { mergedShells } from './model/mergedShells.js';
import { within } from './search/choiceLimits.js';

/** The plans that a fitter weighs against each other. */
export interface PlanVariants {
  /** With the halves on hand. */
  readonly onHand: FitPlan;
  /** With any number of every shell on the list. */
  readonly orderable: FitPlan;
  /** With the halves on hand and equal walls in every station. */
  readonly unmixed: FitPlan;
  /** With the halves on hand and the least spread that can be had; among those the least cost. */
  readonly evenest: FitPlan;
}

/** Halves that a plan uses beyond what is on hand, in the order of the shells. */
export function halvesToOrder(request: FitRequest, plan: FitPlan): { shell: FitShell; count: number }[] {
  const used = new Map(plan.shellsUsed.map(({ id, count }) => [id, count]));
  return request.shells.flatMap((shell) => {
    const missing = shell.stock === null ? 0 : (used.get(shell.id) ?? 0) - shell.stock;
    return missing > 0 ? [{ shell, count: missing }] : [];
  });
}

/** The same request with as many halves of each shell as wanted. */
export function anythingOrderable(request: FitRequest): FitRequest {
  return { ...request, shells: request.shells.map((shell) => ({ ...shell, stock: null })) };
}

/** What finding the least spread may take where there is a clock, ms. */
const EVENEST_MS = 450;

/** The request whose plan is the evenest: each family held to the least spread it can have, mains first. */
function evenest(request: FitRequest, options: FitOptions): FitRequest {
  const { model } = mergedShells(fitModelOf(request));
  const families = FAMILIES.filter((family) => model.stations.some((one) => one.family === family));
  const even = withSpreads(model, new Map(families.map((family) => [family, nanometres(0)])));
  const questions = new FitQuestions(within(options, EVENEST_MS));
  const all = model.stations.map((_, at) => at);
  const spreads = leastSpreads(questions, even, all, KEEP_ALL, families);
  if (spreads === null) return request;
  const maxSpread = Object.fromEntries(
    [...spreads].map(([family, width]) => [family, numberOfLength(width, request.unit)]),
  );
  return { ...request, rules: { ...request.rules, maxSpread: { ...request.rules.maxSpread, ...maxSpread } } };
}

/** What each of the other plans may take where there is a clock, ms. */
const ASIDE_MS = 450;

/** Solves a request in the ways that a fitter weighs against each other. */
export function planVariants(request: FitRequest, options: FitOptions = {}): PlanVariants {
  return {
    onHand: fit(request, options),
    orderable: fit(anythingOrderable(request), within(options, ASIDE_MS)),
    unmixed: fit({ ...request, rules: { ...request.rules, mixedHalves: false } }, within(options, ASIDE_MS)),
    evenest: fit(evenest(request, options), within(options, ASIDE_MS)),
  };
}
