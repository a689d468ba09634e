import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { COST_PER_UM2, fitModelOf, isWished, limitsWith } from './fitModel.js';
import type { FitPlan } from './fitPlan.js';
import type { FitRequest } from './fitRequest.js';
import { fitsPlace, pairFault } from './shellPairs.js';
import { deviationCost } from './stationOptions.js';

/**
 * Checks a plan against its request from the rules of the format alone, without the search: every station served, each
 * housing once, limits, halves, stock, spread, and the stated clearances and cost.
 *
 * @returns what is wrong with the plan, a sentence each; empty when it is allowed and adds up
 */
export function recheckPlan(request: FitRequest, plan: FitPlan): string[] {
  if (plan.status === 'infeasible' || plan.status === 'stopped')
    return plan.stations.length > 0 ? [`a plan that is ${plan.status} serves no station`] : [];
  const faults: string[] = [];
  const model = fitModelOf(request);
  const shells = new Map(model.shells.map((shell) => [shell.id, shell]));
  const housings = new Map(model.housings.map((housing) => [housing.id, housing]));
  const planned = new Map(plan.stations.map((station) => [station.id, station]));
  const taken = new Map<string, string>();
  const used = new Map<string, number>();
  const deviations = new Map<string, number[]>();
  let cost = 0;

  if (planned.size !== plan.stations.length) faults.push('a station is planned twice');
  for (const id of planned.keys()) {
    if (!model.stations.some((station) => station.id === id)) faults.push(`${id} is not in the request`);
  }
  for (const station of model.stations) {
    const choice = planned.get(station.id);
    const housing = choice && housings.get(choice.housing);
    const upper = choice && shells.get(choice.upper);
    const lower = choice && shells.get(choice.lower);
    if (!choice || !housing || !upper || !lower) {
      faults.push(`${station.id} lacks a housing or a half`);
      continue;
    }
    if (housing.engine !== station.engine || housing.family !== station.family)
      faults.push(`${housing.id} is not for ${station.id}`);
    if (housing.station !== null && housing.station !== station.id)
      faults.push(`${housing.id} belongs to ${housing.station}`);
    const own = model.housings.find((other) => other.station === station.id);
    if (own && own.id !== housing.id) faults.push(`${station.id} must take ${own.id}`);
    const before = taken.get(housing.id);
    if (before !== undefined) faults.push(`${housing.id} is used at ${before} and ${station.id}`);
    taken.set(housing.id, station.id);

    const clearance = housing.bore - station.journal - upper.wall - lower.wall + station.offset;
    const { low, high } = limitsWith(station, housing);
    if (clearance < low || clearance > high) faults.push(`${station.id} is outside its limits`);
    if (lengthOfNumber(choice.clearance, plan.unit) !== clearance)
      faults.push(`${station.id} states a wrong clearance`);
    if (lengthOfNumber(choice.deviation, plan.unit) !== clearance - station.aim)
      faults.push(`${station.id} states a wrong deviation`);
    if (upper.family !== station.family || lower.family !== station.family)
      faults.push(`${station.id} has halves of the other family`);
    if (![upper, lower].every((shell) => fitsPlace(shell, station.position)))
      faults.push(`${station.id} has a half that does not fit its place`);
    const fault = pairFault(upper, lower, model.rules);
    if (fault) faults.push(`${station.id} breaks the ${fault} rule`);
    const mixed = upper.wall !== lower.wall;
    const at = model.stations.indexOf(station);
    const position = {
      housing: model.housings.indexOf(housing),
      upper: model.shells.indexOf(upper),
      lower: model.shells.indexOf(lower),
      mixed,
    };
    if (!isWished(model.wishes.get(at), position)) faults.push(`${station.id} is not what is held or allowed there`);
    if (choice.known && !(choice.known.tightest <= choice.clearance && choice.clearance <= choice.known.loosest))
      faults.push(`${station.id} states a clearance outside what its bands allow`);
    if (choice.mixed !== mixed) faults.push(`${station.id} states mixed wrongly`);
    for (const shell of [upper, lower]) used.set(shell.id, (used.get(shell.id) ?? 0) + 1);
    const key = `${station.family} ${station.engine}`;
    deviations.set(key, [...(deviations.get(key) ?? []), clearance - station.aim]);
    cost +=
      deviationCost(clearance - station.aim, model.rules.tightWeight) +
      (mixed ? model.rules.mixedPenalty : 0) +
      upper.price +
      lower.price;
  }
  for (const [id, count] of used) {
    if (count > shells.get(id)!.stock)
      faults.push(`${id} is used ${count} times with ${shells.get(id)!.stock} on hand`);
    if (plan.shellsUsed.find((shell) => shell.id === id)?.count !== count) faults.push(`${id} is counted wrongly`);
  }
  for (const [key, values] of deviations) {
    const limit = model.rules.maxSpread[key.startsWith('main ') ? 'main' : 'rod'];
    const spread = Math.max(...values) - Math.min(...values);
    if (limit !== null && spread > limit) faults.push(`${key.trim()} spreads too far`);
  }
  if (plan.cost === null || Math.round(plan.cost * COST_PER_UM2) !== cost)
    faults.push('the stated cost does not add up');
  return faults;
}
