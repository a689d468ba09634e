import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import { type FitOptions, fit } from './fit.js';
import { leastChoice } from './joint/leastChoice.js';
import { type ChoiceProblem, restrictedToOption } from './model/choice.js';
import { choiceProblem } from './model/choiceProblem.js';
import { COST_PER_UM2, fitModelOf } from './model/fitModel.js';
import type { FitProblem } from './model/fitProblem.js';
import type { SolvedStation } from './model/fitSolution.js';
import { mergedShells } from './model/mergedShells.js';
import { housingsByStation, stationOptions } from './model/stationOptions.js';
import { type ChoiceLimits, hasEnded, within } from './search/choiceLimits.js';

/** Another way to serve a station, and what the whole would cost with it once the other stations have adapted. */
export interface Alternative extends Omit<SolvedStation, 'id'> {
  /** Least cost of all with this choice, µm²; null when the rest then no longer fits, or that was not found out. */
  readonly cost: number | null;
  /** Mean distance of all stations from their targets with it; null as the cost is. */
  readonly meanOff: Nanometres | null;
  /** False where the time was too short to find out. */
  readonly isKnown: boolean;
}

/** A rod (or any housing) on a station: the least cost with it there, or why it cannot be. */
export interface Placement {
  readonly station: string;
  readonly housing: string;
  /** Least cost of all with the housing there, µm²; null when that cannot be, or was not found out. */
  readonly cost: number | null;
  /** Mean distance of all stations from their targets then; null as the cost is. */
  readonly meanOff: Nanometres | null;
  /** False where the time was too short to find out. */
  readonly isKnown: boolean;
  /** Why there is no cost, in words; null where there is one. */
  readonly reason: string | null;
}

/** The problem with what is held at one station let go: everything that could be there is an alternative. */
function released(problem: FitProblem, station: string): FitProblem {
  return {
    ...problem,
    wishes: { ...problem.wishes, hold: problem.wishes.hold.filter((hold) => hold.station !== station) },
  };
}

/** What a problem costs at least, µm², and how far its stations are then off their targets on average. */
interface Least {
  readonly cost: number;
  readonly meanOff: Nanometres;
}

/** The least cost of a problem; null when nothing fits, undefined when that was not found out. */
function leastOf(problem: ChoiceProblem, limits: ChoiceLimits): Least | null | undefined {
  if (hasEnded(limits)) return undefined;
  const answer = leastChoice(problem, limits);
  if (answer.status === 'stopped' || answer.status === 'feasible') return undefined;
  if (answer.status === 'infeasible') return null;
  const sum = answer.chosen.reduce((total, option) => total + Math.abs(problem.deviation[option]!), 0);
  return { cost: answer.cost / COST_PER_UM2, meanOff: nanometres(Math.round(sum / Math.max(1, answer.chosen.length))) };
}

/** What it may take where there is a clock, ms. */
const LONGEST_MS = 1_800;

/** Alternatives at one station at most, those nearest to its own aim. */
const MOST_ALTERNATIVES = 400;

/**
 * Every pair and housing that meets a station's own limits and rules, each with the least cost of the whole when it is held
 * there and the rest adapts. What is held at the station itself is let go; what is held elsewhere stays. Alike halves stand there
 * once; of very many ways the 400 that suit the station best.
 *
 * @param station id of the station
 * @returns cheapest first; those with which the rest no longer fits come last, those that the time was too short for at the very end
 * @throws when there is no such station
 */
export function alternativesAt(problem: FitProblem, station: string, options: FitOptions = {}): Alternative[] {
  const limits = within(options, LONGEST_MS);
  const { model, members } = mergedShells(fitModelOf(released(problem, station)));
  const asked = fitModelOf(problem);
  const at = model.stations.findIndex(({ id }) => id === station);
  if (at < 0) throw new Error(`station “${station}” is not in the problem`);
  const all = stationOptions(model);
  const choices = choiceProblem(model, all);
  const ways = Array.from({ length: all.count(at) }, (_, which) => all.start[at]! + which)
    .sort((a, b) => all.cost[a]! - all.cost[b]! || a - b)
    .slice(0, MOST_ALTERNATIVES);
  return ways
    .map((way) => {
      const { housing, upper, lower, clearance, deviation, mixed } = all.at(at, way);
      const inStock = members[lower]!.filter((shell) => asked.shells[shell]!.stock > 0);
      const above = members[upper]!.find((shell) => asked.shells[shell]!.stock > 0)!;
      // Of a kind that fits either side the two halves may be different shells.
      const below = inStock.find((shell) => shell !== above || asked.shells[shell]!.stock > 1)!;
      const least = leastOf(restrictedToOption(choices, at, way), limits);
      return {
        housing: model.housings[housing]!.id,
        upper: asked.shells[above]!.id,
        lower: asked.shells[below]!.id,
        clearance: nanometres(clearance),
        deviation: nanometres(deviation),
        mixed,
        cost: least?.cost ?? null,
        meanOff: least?.meanOff ?? null,
        isKnown: least !== undefined,
      };
    })
    .sort(
      (a, b) =>
        Number(b.isKnown) - Number(a.isKnown) ||
        (a.cost ?? Number.POSITIVE_INFINITY) - (b.cost ?? Number.POSITIVE_INFINITY),
    );
}

/** What looking for reasons may take of that: placements that cannot be are many and alike, ms. */
const REASONS_MS = 600;

/**
 * Every free housing of one engine and family on every station it may serve: what the whole would cost with it kept there, or the
 * reason why it cannot be there.
 *
 * @returns in the order of stations, then housings
 */
export function placementsOf(
  problem: FitProblem,
  { engine, family }: { engine: string; family: Family },
  options: FitOptions = {},
): Placement[] {
  const { model } = mergedShells(fitModelOf(problem));
  const places = housingsByStation(model);
  const reasons = within(options, LONGEST_MS);
  const limits = within(options, LONGEST_MS - REASONS_MS);
  const placed = (station: string, housing: string): FitProblem => ({
    ...problem,
    housings: problem.housings.map((one) => (one.id === housing ? { ...one, station } : one)),
  });
  const found = model.stations.flatMap((station, at) =>
    station.engine !== engine || station.family !== family
      ? []
      : places[at]!.map((which) => {
          const moving = model.housings[which]!;
          const housings = model.housings.map((one, other) =>
            other === which ? { ...one, station: station.id } : one,
          );
          const moved = { ...model, housings };
          const least = leastOf(choiceProblem(moved, stationOptions(moved)), limits);
          return { station, housing: moving, least };
        }),
  );
  return found.map(({ station, housing, least }) => {
    const answer = {
      station: station.id,
      housing: housing.id,
      cost: least?.cost ?? null,
      meanOff: least?.meanOff ?? null,
      isKnown: least !== undefined,
    };
    const otherwise = `With ${housing.name} at ${station.name} the rest no longer fits.`;
    if (least) return { ...answer, reason: null };
    if (least === undefined) return { ...answer, reason: 'Out of time: not known whether this fits.' };
    if (hasEnded(reasons)) return { ...answer, reason: otherwise };
    const { conflicts } = fit(placed(station.id, housing.id), reasons);
    const reason = conflicts.map(({ message, remedy }) => `${message} ${remedy}`).join(' ');
    return { ...answer, reason: reason === '' ? otherwise : reason };
  });
}
