import { numberOfLength } from '../measure/formatLength.js';
import { nanometres } from '../measure/nanometres.js';
import { type FitOptions, fit } from './fit.js';
import { fitModelOf } from './fitModel.js';
import type { FitPlan } from './fitPlan.js';
import type { Family, FitRequest, FitShell } from './fitRequest.js';
import { stationOptions } from './stationOptions.js';

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

/** The least spread of one family with which everything still fits, in its unit; null when nothing fits at all. */
function leastSpread(request: FitRequest, family: Family, options: FitOptions): number | null {
  const model = fitModelOf(request);
  const all = stationOptions(model);
  const deviations = model.stations.flatMap((station, at) =>
    station.family === family ? [...all.deviation.subarray(all.start[at]!, all.start[at + 1]!)] : [],
  );
  const distinct = [...new Set(deviations)].sort((a, b) => a - b);
  const widths = [...new Set(distinct.flatMap((low, at) => distinct.slice(at).map((high) => high - low)))].sort(
    (a, b) => a - b,
  );
  const at = (width: number): FitRequest => ({
    ...request,
    rules: {
      ...request.rules,
      maxSpread: { ...request.rules.maxSpread, [family]: numberOfLength(nanometres(width), request.unit) },
    },
  });
  const isEnough = (width: number) => fit(at(width), { ...options, explain: false }).cost !== null;
  let from = 0;
  let to = widths.length - 1;
  if (to < 0 || !isEnough(widths[to]!)) return null;
  while (from < to) {
    const middle = (from + to) >> 1;
    if (isEnough(widths[middle]!)) to = middle;
    else from = middle + 1;
  }
  return numberOfLength(nanometres(widths[from]!), request.unit);
}

/** The request whose plan is the evenest: each family held to the least spread it can have, mains first. */
function evenest(request: FitRequest, options: FitOptions): FitRequest {
  let even = request;
  for (const family of ['main', 'rod'] as const) {
    if (!request.stations.some((station) => station.family === family)) continue;
    const spread = leastSpread(even, family, options);
    if (spread === null) return even;
    even = { ...even, rules: { ...even.rules, maxSpread: { ...even.rules.maxSpread, [family]: spread } } };
  }
  return even;
}

/** Solves a request in the ways that a fitter weighs against each other. */
export function planVariants(request: FitRequest, options: FitOptions = {}): PlanVariants {
  return {
    onHand: fit(request, options),
    orderable: fit(anythingOrderable(request), options),
    unmixed: fit({ ...request, rules: { ...request.rules, mixedHalves: false } }, options),
    evenest: fit(evenest(request, options), options),
  };
}
