import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { type Choice, choicesOf, restrictedTo } from './choice.js';
import type { ChoiceLimits } from './choiceLimits.js';
import { choiceProblem, KEEP_ALL, type Kept, spreadGroups } from './choiceProblem.js';
import type { FitModel, ModelRules, ModelStation } from './fitModel.js';
import type { FitConflict, FitRemedy } from './fitPlan.js';
import { leastChoice } from './leastChoice.js';
import { overdrawnGroup } from './overdrawnGroup.js';
import { lengthText, remediesFor } from './remedies.js';
import { shellPairs } from './shellPairs.js';
import { clearanceWith, housingsByStation, type StationOptions, stationOptions } from './stationOptions.js';

/** The rules at their widest: any two halves of the right side. */
function openRules(rules: ModelRules): ModelRules {
  return {
    ...rules,
    mixedHalves: true,
    acrossSeries: true,
    maxWallStep: nanometres(1_000_000_000),
    thinnerHalf: 'either',
  };
}

function isFeasible(
  model: FitModel,
  options: StationOptions,
  stations: readonly number[],
  kept: Kept,
  limits: ChoiceLimits,
): boolean {
  return leastChoice(restrictedTo(choiceProblem(model, options, kept), stations), limits).status !== 'infeasible';
}

/**
 * Stations that compete for too few of one kind of resource alone (uppers, lowers or housings), whatever they take of the
 * others; null when each kind could be shared out.
 */
function shortOfOneKind(
  model: FitModel,
  options: StationOptions,
  stations: readonly number[],
  kept: Kept,
): number[] | null {
  const { capacity } = choiceProblem(model, options, kept);
  for (const use of options.use) {
    const accepts = stations.map(
      (station) => new Set(use.subarray(options.start[station]!, options.start[station + 1]!)),
    );
    const group = overdrawnGroup(accepts, capacity);
    if (group !== null) return group.map((at) => stations[at]!);
  }
  return null;
}

/**
 * Drops stations while the rest still does not fit, in lumps first, then one at a time: what is left needs every one of
 * them.
 */
function minimalGroup(stations: readonly number[], isConflict: (stations: readonly number[]) => boolean): number[] {
  let group = [...stations];
  for (let lump = group.length >> 1; lump >= 1; lump >>= 1) {
    for (let from = 0; from < group.length; ) {
      const without = [...group.slice(0, from), ...group.slice(from + lump)];
      if (without.length > 0 && isConflict(without)) group = without;
      else from += lump;
    }
  }
  return group;
}

/** A conflict of more stations than this is not tried without each of them. */
const TRIED_ONE_BY_ONE = 24;

/** Remedies are looked for in so many conflicts, the first ones. */
const MOST_REMEDIED = 8;

/** More names than this are counted, not listed. */
const NAMED = 12;

function joined(parts: readonly string[]): string {
  if (parts.length > NAMED) return `${parts.slice(0, NAMED - 2).join(', ')} and ${parts.length - NAMED + 2} more`;
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;
}

/** Cost units of one bought half: so large that prices only decide between equal counts. */
const COST_OF_A_HALF = 1e12;

/** Fewest halves to be had on top of the stock so that the stations fit: per shell how many; null if no purchase helps. */
function fewestMissing(model: FitModel, stations: readonly number[], limits: ChoiceLimits): Map<number, number> | null {
  const anything = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
  const options = stationOptions({ ...model, shells: anything });
  const problem = restrictedTo(choiceProblem(model, options), stations);
  const bought: number[][] = [];
  const elastic = stations.map((station) => {
    const variants: Choice[] = [];
    for (const { upper, lower, housing, deviation } of options.of(station)) {
      for (let mask = 0; mask < 4; mask += 1) {
        const buys = [upper, lower].filter((_, at) => (mask >> at) & 1);
        if (buys.some((shell) => model.shells[shell]!.stock === Number.POSITIVE_INFINITY)) continue;
        const uses = [mask & 1 ? -1 : upper, mask & 2 ? -1 : lower, model.shells.length + housing] as const;
        const price = buys.reduce((sum, shell) => sum + model.shells[shell]!.price, 0);
        variants.push({ cost: buys.length * COST_OF_A_HALF + price, uses, deviation });
        bought.push(buys);
      }
    }
    return variants;
  });
  const answer = leastChoice({ ...problem, ...choicesOf(elastic) }, limits);
  if (answer.status === 'infeasible') return null;
  const missing = new Map<number, number>();
  for (const option of answer.chosen) {
    for (const shell of bought[option]!) missing.set(shell, (missing.get(shell) ?? 0) + 1);
  }
  return missing;
}

/** Explains one model's failure in the request's unit. */
class Explainer {
  private readonly model: FitModel;
  private readonly options: StationOptions;
  private readonly unit: Unit;
  private readonly limits: ChoiceLimits;

  constructor(model: FitModel, options: StationOptions, unit: Unit, limits: ChoiceLimits) {
    this.limits = limits;
    this.model = model;
    this.options = options;
    this.unit = unit;
  }

  private get all(): number[] {
    return this.model.stations.map((_, at) => at);
  }

  private length(value: number): string {
    return lengthText(value, this.unit);
  }

  private ids(stations: readonly number[]): string[] {
    return stations.map((station) => this.model.stations[station]!.id);
  }

  /** A station that no housing and pair can serve, whatever the others take. */
  lonely(at: number): FitConflict {
    const { model } = this;
    const station = model.stations[at]!;
    const housings = housingsByStation(model)[at]!;
    const base = { stations: [station.id], shells: [] };
    if (housings.length === 0) {
      return {
        ...base,
        kind: 'matching',
        message: `${station.id} has no housing: none is fixed to it and none of its engine and family is free.`,
        remedy: `Add the housing of ${station.id} with its bore.`,
      };
    }
    const free = stationOptions({ ...model, wishes: new Map([...model.wishes].filter(([other]) => other !== at)) });
    if (free.count(at) > 0) {
      return {
        ...base,
        kind: 'rules',
        message: `What is held or forbidden at ${station.id} leaves no pair inside its limits.`,
        remedy: `Let go of what is held or forbidden at ${station.id}.`,
      };
    }
    // Stock is counted as unlimited here, so that "wrong wall" and "none left" are told apart.
    const shells = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
    const reach = (rules: ModelRules, list = shells) =>
      housings.flatMap((housing) =>
        shellPairs(list, station.family, rules).map((pair) => ({
          pair,
          clearance: clearanceWith(station, model.housings[housing]!, pair),
        })),
      );
    const inside = ({ clearance }: { clearance: number }) => clearance >= station.low && clearance <= station.high;
    const names = (pair: { upper: number; lower: number }) => [
      model.shells[pair.upper]!.id,
      model.shells[pair.lower]!.id,
    ];

    const withinRules = reach(model.rules);
    const outOfStock = withinRules.find(inside);
    if (outOfStock) {
      const [upper, lower] = names(outOfStock.pair);
      const needed = [...new Set([upper!, lower!])];
      return {
        ...base,
        kind: 'stock-short',
        shells: needed,
        message: `${station.id} could only be served by halves that are out of stock, as ${upper} over ${lower}.`,
        remedy: `With ${upper} and ${lower} on hand it would run at ${this.length(outOfStock.clearance)}.`,
      };
    }
    const underOpenRules = reach(openRules(model.rules)).find(inside);
    if (underOpenRules) {
      const [upper, lower] = names(underOpenRules.pair);
      return {
        ...base,
        kind: 'rules',
        shells: [...new Set([upper!, lower!])],
        message: `${station.id} has no pair inside its limits that the rules allow.`,
        remedy: `${upper} over ${lower} would give ${this.length(underOpenRules.clearance)}; the rules on mixed halves, wall step, thinner side or series keep it out.`,
      };
    }
    const [housing] = housings;
    const gap = model.housings[housing!]!.bore - station.journal + station.offset;
    const limits = `${this.length(station.low)} to ${this.length(station.high)}`;
    const wanted = `Walls that sum to ${this.length(gap - station.high)} to ${this.length(gap - station.low)} would do${housings.length > 1 ? ` in ${model.housings[housing!]!.id}` : ''}.`;
    const candidates = reach(openRules(model.rules));
    if (candidates.length === 0) {
      return {
        ...base,
        kind: 'no-pair-in-range',
        message: `There is no pair of ${station.family} halves, upper and lower, for ${station.id}.`,
        remedy: wanted,
      };
    }
    const miss = ({ clearance }: { clearance: number }) =>
      clearance < station.low ? station.low - clearance : clearance - station.high;
    const nearest = candidates.reduce((best, next) => (miss(next) < miss(best) ? next : best));
    const [upper, lower] = names(nearest.pair);
    const side = nearest.clearance < station.low ? 'too tight' : 'too loose';
    return {
      ...base,
      kind: 'no-pair-in-range',
      shells: [...new Set([upper!, lower!])],
      message: `${station.id}: the nearest pair, ${upper} over ${lower}, gives ${this.length(nearest.clearance)}, ${this.length(miss(nearest))} ${side} (limits ${limits}).`,
      remedy: wanted,
    };
  }

  private smallest(candidates: readonly number[], kept: Kept): number[] {
    const { model, options, limits } = this;
    const short = shortOfOneKind(model, options, candidates, kept);
    // Short of one kind, it is smallest as far as that kind goes. Few stations are tried with all that couples them as well.
    if (short !== null && short.length > TRIED_ONE_BY_ONE) return short;
    return minimalGroup(short ?? candidates, (stations) => !isFeasible(model, options, stations, kept, limits));
  }

  /** Stations of `candidates` that compete for too few halves. */
  private stockShort(candidates: readonly number[], kept: Kept): FitConflict {
    const group = this.smallest(candidates, kept);
    const missing = fewestMissing(this.model, group, this.limits);
    const everywhere = fewestMissing(this.model, this.all, this.limits);
    const overall = everywhere ?? fewestMissing(this.model, candidates, this.limits);
    const goal = everywhere ? 'everything fits' : 'these fit';
    const list = (halves: Map<number, number> | null) =>
      joined([...(halves ?? [])].map(([shell, count]) => `${count} × ${this.model.shells[shell]!.id}`));
    const count = [...(missing?.values() ?? [])].reduce((sum, next) => sum + next, 0);
    const contested = [
      ...new Set(group.flatMap((station) => this.options.of(station).flatMap(({ upper, lower }) => [upper, lower]))),
    ]
      .filter((shell) => this.model.shells[shell]!.stock < 2 * group.length)
      .sort((a, b) => a - b)
      .map((shell) => this.model.shells[shell]!.id);
    return {
      kind: 'stock-short',
      stations: this.ids(group),
      shells: contested,
      message: `${joined(this.ids(group))} compete for too few halves: ${count} ${count === 1 ? 'is' : 'are'} missing (${list(missing)}).`,
      remedy: `Fewest to get so that ${goal}: ${list(overall)}.`,
    };
  }

  private matching(candidates: readonly number[]): FitConflict {
    const kept = { stock: false, housings: true, spread: false };
    const group = this.smallest(candidates, kept);
    const housings = new Set(group.flatMap((station) => this.options.of(station).map(({ housing }) => housing)));
    const names = [...housings].sort((a, b) => a - b).map((housing) => this.model.housings[housing]!.id);
    return {
      kind: 'matching',
      stations: this.ids(group),
      shells: [],
      message: `${joined(this.ids(group))} need ${group.length} housings, but only ${joined(names)} can serve any of them.`,
      remedy: `Add a housing that fits one of them, or shells with other walls.`,
    };
  }

  private spread(candidates: readonly number[], kept: Kept): FitConflict {
    const { model } = this;
    const group = this.smallest(candidates, kept);
    const { family } = model.stations[group[0]!]!;
    const limit = model.rules.maxSpread[family]!;
    const atSpread = (spread: Nanometres | null): FitModel => ({
      ...model,
      rules: { ...model.rules, maxSpread: { ...model.rules.maxSpread, [family]: spread } },
    });
    const isWhole = isFeasible(atSpread(null), this.options, this.all, kept, this.limits);
    const concerned = isWhole ? this.all : candidates;
    const deviations = [
      ...new Set(
        concerned
          .filter((station) => model.stations[station]!.family === family)
          .flatMap((station) => this.options.of(station).map(({ deviation }) => deviation)),
      ),
    ].sort((a, b) => a - b);
    const widths = [...new Set(deviations.flatMap((low, at) => deviations.slice(at).map((high) => high - low)))]
      .filter((width) => width > limit)
      .sort((a, b) => a - b);
    let from = 0;
    let to = widths.length - 1;
    while (from < to) {
      const middle = (from + to) >> 1;
      if (isFeasible(atSpread(nanometres(widths[middle]!)), this.options, concerned, kept, this.limits)) to = middle;
      else from = middle + 1;
    }
    const needed = widths[from];
    return {
      kind: 'spread',
      stations: this.ids(group),
      shells: [],
      message: `${joined(this.ids(group))} can each be served, but not within ${this.length(limit)} of each other.`,
      remedy:
        needed === undefined
          ? 'Other walls in the drawer would bring them closer together.'
          : `A spread of ${this.length(needed)} would do ${isWhole ? '' : 'for these '}with the halves there are.`,
    };
  }

  /** All stations have options, but not together. */
  together(stations: readonly number[]): FitConflict[] {
    const feasible = (kept: Kept) => isFeasible(this.model, this.options, stations, kept, this.limits);
    if (!feasible({ stock: false, housings: true, spread: false })) return [this.matching(stations)];
    if (feasible({ ...KEEP_ALL, stock: false })) return [this.stockShort(stations, KEEP_ALL)];
    if (feasible({ ...KEEP_ALL, spread: false })) return [this.spread(stations, KEEP_ALL)];
    // Too few halves and too wide a spread at once: each is explained with the other one dropped.
    const conflicts: FitConflict[] = [];
    const stockOnly = { stock: true, housings: true, spread: false };
    const spreadOnly = { stock: false, housings: true, spread: true };
    if (!feasible(stockOnly)) conflicts.push(this.stockShortWithoutSpread(stations, stockOnly));
    if (!feasible(spreadOnly)) conflicts.push(this.spread(stations, spreadOnly));
    return conflicts;
  }

  private stockShortWithoutSpread(stations: readonly number[], kept: Kept): FitConflict {
    const rules = { ...this.model.rules, maxSpread: { main: null, rod: null } };
    return new Explainer({ ...this.model, rules }, this.options, this.unit, this.limits).stockShort(stations, kept);
  }
}

function conflictsOf(model: FitModel, options: StationOptions, unit: Unit, limits: ChoiceLimits): FitConflict[] {
  const explainer = new Explainer(model, options, unit, limits);
  const lonely = model.stations.flatMap((_, at) => (options.count(at) === 0 ? [explainer.lonely(at)] : []));
  if (lonely.length > 0) return lonely;

  const conflicts: FitConflict[] = [];
  const { group, keys } = spreadGroups(model);
  const healthy: number[] = [];
  keys.forEach((_, at) => {
    const stations = group.flatMap((own, station) => (own === at ? [station] : []));
    if (isFeasible(model, options, stations, KEEP_ALL, limits)) healthy.push(...stations);
    else conflicts.push(...explainer.together(stations));
  });
  if (conflicts.length > 0) return conflicts;
  return explainer.together(healthy.sort((a, b) => a - b));
}

/** Stations by position that conflicts name. */
function stationsOf(model: FitModel, conflicts: readonly FitConflict[]): number[] {
  const named = new Set(conflicts.flatMap(({ stations }) => stations));
  return model.stations.flatMap(({ id }, at) => (named.has(id) ? [at] : []));
}

/** Remedies after which all stations of the scope fit. */
function remediesWithin(
  model: FitModel,
  scope: readonly number[],
  group: readonly number[],
  unit: Unit,
  limits: ChoiceLimits,
): FitRemedy[] {
  const missing = fewestMissing(model, scope, limits);
  const bought = [...(missing ?? [])].map(([shell, count]) => ({ id: model.shells[shell]!.id, count }));
  return remediesFor({ model, scope, group, bought, unit, limits });
}

/**
 * Adds the remedies that were solved for. Those that make everything fit stand with the first conflict; only where there are
 * none, each conflict has those for what it concerns.
 */
function withRemedies(
  model: FitModel,
  conflicts: readonly FitConflict[],
  unit: Unit,
  limits: ChoiceLimits,
): FitConflict[] {
  const all = model.stations.map((_, at) => at);
  const whole = remediesWithin(model, all, stationsOf(model, conflicts), unit, limits);
  if (whole.length > 0 || conflicts.length === 1) {
    return conflicts.map((conflict, at) => ({ ...conflict, remedies: at === 0 ? whole : [] }));
  }
  return conflicts.map((conflict, at) => {
    if (at >= MOST_REMEDIED) return conflict;
    const group = stationsOf(model, [conflict]);
    const isOf = (station: ModelStation) =>
      group.some(
        (other) => model.stations[other]!.engine === station.engine && model.stations[other]!.family === station.family,
      );
    const scope = group.length === 1 ? group : all.filter((station) => isOf(model.stations[station]!));
    return { ...conflict, remedies: remediesWithin(model, scope, group, unit, limits) };
  });
}

/**
 * Says why nothing fits: stations that no pair can serve first; otherwise, engine by engine where each fails alone or for
 * all together, the smallest group of stations that compete, and what would help. Remedies that name a count of halves
 * or a spread were solved for, not guessed.
 *
 * @param model a model that has no plan
 * @param options its `stationOptions`
 * @param unit the unit of the messages
 */
export function explainConflicts(
  model: FitModel,
  options: StationOptions,
  unit: Unit,
  limits: ChoiceLimits = {},
): FitConflict[] {
  const conflicts = conflictsOf(model, options, unit, limits);
  return withRemedies(model, conflicts, unit, limits);
}
