import { chanceInside } from '../clearance/chanceInside.js';
import { clearanceOfBands } from '../clearance/clearanceOfBands.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { equalChoice } from './equalChoice.js';
import { explainConflicts } from './explain/explainConflicts.js';
import { leastChoice } from './joint/leastChoice.js';
import type { ChoiceAnswer } from './model/choice.js';
import { choiceProblem, KEEP_ALL, spreadGroups } from './model/choiceProblem.js';
import { COST_PER_UM2, type FitModel, fitModelOf, offsetOfPair } from './model/fitModel.js';
import type { FitProblem } from './model/fitProblem.js';
import type { FitSolution, SolvedStation } from './model/fitSolution.js';
import { dealer, type MergedShells, mergedShells } from './model/mergedShells.js';
import { type StationOption, type StationOptions, stationOptions } from './model/stationOptions.js';
import { type ChoiceLimits, hasEnded, within } from './search/choiceLimits.js';

function spreads(model: FitModel, chosen: readonly StationOption[]): FitSolution['spread'] {
  const { group, keys } = spreadGroups(model);
  return keys.flatMap(({ engine, family, inSpread }, at) => {
    if (!inSpread) return [];
    const deviations = chosen.filter((_, station) => group[station] === at).map(({ deviation }) => deviation);
    const value = nanometres(Math.max(...deviations) - Math.min(...deviations));
    return [{ engine, family, value }];
  });
}

function shellsUsed(model: FitModel, chosen: readonly StationOption[]): FitSolution['shellsUsed'] {
  const counts = new Map<number, number>();
  for (const { upper, lower } of chosen) {
    for (const shell of [upper, lower]) counts.set(shell, (counts.get(shell) ?? 0) + 1);
  }
  return [...counts].sort(([a], [b]) => a - b).map(([shell, count]) => ({ id: model.shells[shell]!.id, count }));
}

/** How well a clearance is known where a size of its station is only known by its band. */
function howWellKnown(
  { stations, housings, shells }: FitProblem,
  model: FitModel,
  at: number,
  { housing, upper, lower }: StationOption,
): Pick<SolvedStation, 'known'> {
  const station = stations[at]!;
  const { bore, boreBand } = housings[housing]!;
  const [above, below] = [shells[upper]!, shells[lower]!];
  if (!boreBand && !station.journalBand && !above.wallBand && !below.wallBand) return {};
  const band = (given: SizeBand | undefined, size: Nanometres): SizeBand => given ?? { low: size, high: size };
  const bands = { bore: band(boreBand, bore), journal: band(station.journalBand, station.journal) };
  const walls = { upper: band(above.wallBand, above.wall), lower: band(below.wallBand, below.wall) };
  const offset = offsetOfPair(model.stations[at]!, above.series === below.series ? above.series : null);
  const { tightest, loosest } = clearanceOfBands(bands.bore, bands.journal, walls.upper, walls.lower);
  return {
    known: {
      tightest: nanometres(tightest + offset),
      loosest: nanometres(loosest + offset),
      inside: chanceInside({ ...bands, ...walls }, station, offset),
    },
  };
}

/** The end play with the halves of an option, where their flanges set it. */
function endPlayOf(
  { stations, shells }: FitModel,
  at: number,
  { upper, lower }: StationOption,
): Pick<SolvedStation, 'endPlay'> {
  const { endPlay } = stations[at]!;
  if (endPlay === null) return {};
  const width = Math.max(shells[upper]!.width ?? 0, shells[lower]!.width ?? 0);
  return { endPlay: nanometres(endPlay.free - width) };
}

export interface FitOptions extends ChoiceLimits {
  /** Works out for every shell used to its last half what one more would save: solves once more for each. */
  readonly prices?: boolean;
  /** Leave out why nothing fits, and remedies: for questions where only the cost counts. */
  readonly explain?: boolean;
}

/** From this many stations on, prices come from the search itself: solving once more for each shell would take too long. */
const SOLVED_PRICES_UP_TO = 60;

/** What working prices out may take where there is a clock, ms: those that it is too short for are left out. */
const PRICES_MS = 1_500;

/** What one more half of each scarce shell would save; nothing where that was not asked for and did not come by itself. */
function pricesOf(
  asked: FitModel,
  { model, members }: MergedShells,
  answer: Extract<ChoiceAnswer, { cost: number }>,
  limits: FitOptions,
): Pick<FitSolution, 'prices'> {
  const listed = (prices: ArrayLike<number>) => ({
    prices: members.flatMap((list, kind) =>
      prices[kind]! > 0 ? list.map((at) => ({ id: asked.shells[at]!.id, price: prices[kind]! / COST_PER_UM2 })) : [],
    ),
  });
  if (model.stations.length > SOLVED_PRICES_UP_TO) return listed(answer.prices);
  if (limits.prices !== true) return {};
  const patient = within(limits, PRICES_MS);
  return listed(
    model.shells.map((one, shell) => {
      if (one.stock === Number.POSITIVE_INFINITY || hasEnded(patient)) return 0;
      const shells = model.shells.map((other, at) => (at === shell ? { ...other, stock: other.stock + 1 } : other));
      const more = { ...model, shells };
      const found = leastChoice(choiceProblem(more, stationOptions(more)), patient);
      return found.status === 'optimal' ? Math.max(0, answer.cost - found.cost) : 0;
    }),
  );
}

/** The ids of all shells that are alike one of the merged model, by its id. */
function namesOfKind(asked: FitModel, { model, members }: MergedShells): (id: string) => string[] {
  const kinds = new Map(model.shells.map(({ id }, kind) => [id, kind]));
  return (id) => members[kinds.get(id)!]!.map((at) => asked.shells[at]!.id);
}

/** The least choice of a model, with what is proven where the options are not all there is (see `OptionsHeld`). */
function settled(model: FitModel, options: StationOptions, limits: ChoiceLimits): ChoiceAnswer {
  const problem = choiceProblem(model, options);
  const answer = leastChoice(problem, limits);
  if (options.holds === 'all' || answer.status === 'stopped') return answer;
  if (options.holds === 'part') {
    // The cheapest options may be among those that are not listed: nothing is proven of the cost.
    return answer.status === 'infeasible'
      ? { status: 'stopped', bound: 0 }
      : { ...answer, status: 'feasible', bound: 0 };
  }
  const free = leastChoice(choiceProblem(model, options, { ...KEEP_ALL, spread: false }), limits);
  if (free.status === 'infeasible') return free;
  if (answer.status === 'infeasible') return { status: 'stopped', bound: free.bound };
  const bound = Math.min(answer.cost, free.bound);
  return { ...answer, status: bound < answer.cost ? 'feasible' : 'optimal', bound };
}

/**
 * Chooses a housing and two halves for every station at least cost, and proves it: `C = bore − journal − walls + offset`
 * inside each station's limits, stock and matching respected, cost
 * `Σ w·d² + mixedPenalty·mixed + pricePenalty·price` in µm² with `d = C − aim`. Each option's cost is rounded to
 * 10⁻⁶ µm², the square of a nanometre.
 *
 * @returns what every station gets; an infeasible one whose conflicts explain why nothing fits; or, where the limits came before either, a
 *   stopped one with the proven bound alone. The same problem always gives the same answer, unless it was stopped.
 */
export function fit(problem: FitProblem, limits: FitOptions = {}): FitSolution {
  const asked = fitModelOf(problem);
  const merged = mergedShells(asked);
  const { model } = merged;
  const options = stationOptions(model, () => hasEnded(limits));
  const answer = settled(model, options, limits);
  if (answer.status === 'infeasible' || answer.status === 'stopped') {
    const isStopped = answer.status === 'stopped';
    return {
      status: answer.status,
      cost: null,
      bound: isStopped ? answer.bound / COST_PER_UM2 : null,
      stations: [],
      shellsUsed: [],
      spread: [],
      conflicts:
        isStopped || limits.explain === false
          ? []
          : explainConflicts(problem, model, options, limits).map((conflict) => ({
              ...conflict,
              shells: conflict.shells.flatMap(namesOfKind(asked, merged)),
            })),
    };
  }
  const taken = Array.from(equalChoice(model, options, answer.chosen), (option, station) =>
    options.at(station, option),
  );
  const deal = dealer(
    asked,
    merged,
    taken.flatMap(({ upper, lower }) => [upper, lower]),
  );
  const chosen = taken.map((option) => ({ ...option, upper: deal(option.upper), lower: deal(option.lower) }));
  return {
    status: answer.status,
    cost: answer.cost / COST_PER_UM2,
    bound: answer.bound / COST_PER_UM2,
    stations: chosen.map((option, at) => ({
      ...howWellKnown(problem, asked, at, option),
      id: model.stations[at]!.id,
      housing: model.housings[option.housing]!.id,
      upper: asked.shells[option.upper]!.id,
      lower: asked.shells[option.lower]!.id,
      clearance: nanometres(option.clearance),
      deviation: nanometres(option.deviation),
      mixed: option.mixed,
      ...endPlayOf(asked, at, option),
    })),
    shellsUsed: shellsUsed(asked, chosen),
    spread: spreads(model, chosen),
    conflicts: [],
    ...pricesOf(asked, merged, answer, limits),
  };
}
