import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { lengthText } from '../../measure/lengthText.js';
import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import type { Family } from '../../part/family.js';
import { FAMILIES, FAMILY_TABLE } from '../../part/family.js';
import { type ChoiceProblem, restrictedTo } from '../model/choice.js';
import { choiceProblem, KEEP_ALL } from '../model/choiceProblem.js';
import {
  type FitModel,
  fitModelOf,
  isWished,
  limitsWith,
  type ModelEndPlay,
  type ModelShell,
  offsetOfPair,
} from '../model/fitModel.js';
import type { FitProblem } from '../model/fitProblem.js';
import type { ChangedRules, Remedy } from '../model/fitSolution.js';
import { mergedShells } from '../model/mergedShells.js';
import { clearanceWith, endPlayCost } from '../model/optionCost.js';
import { PairWindows } from '../model/PairWindows.js';
import { fitsPlace, isOpenShell, pairFault, pairOf, type ShellPair, shellPairs } from '../model/shellPairs.js';
import { housingsByStation, stationOptions } from '../model/stationOptions.js';
import { applyRemedy } from './applyRemedy.js';
import { type Extra, elasticChoice } from './elasticChoice.js';
import type { FitQuestions } from './FitQuestions.js';
import { boughtExtras, COST_OF_A_HALF, fewestHalves } from './fewestHalves.js';
import { leastSpreads, withSpreads } from './leastSpreads.js';
import { newWalls } from './newWalls.js';

/** Effort: stations that are looked at one by one. */
const MOST_STATIONS = 60;
/** Limits that are named, each the nearest that would do beside those before. */
const MOST_LIMITS = 3;

/** Everything that a remedy is looked for in. */
export interface Trouble {
  /** The problem as it was asked: what a remedy is applied to. */
  readonly problem: FitProblem;
  /** Its model, alike shells merged. */
  readonly model: FitModel;
  /** All stations that are to fit once the remedy is applied, by position. */
  readonly scope: readonly number[];
  /** The stations of the conflict, by position. */
  readonly group: readonly number[];
  readonly unit: Unit;
  readonly questions: FitQuestions;
}

type Found = Remedy[];

/** The gate that every remedy passes: applied to the whole problem, which is solved again for what is to fit. */
function helps({ problem, scope, questions }: Trouble, offered: Remedy): boolean {
  const { model } = mergedShells(fitModelOf(applyRemedy(problem, offered)));
  return questions.fits(model, scope) === 'yes';
}

function remedy(kind: Remedy['kind'], message: string, rest: Partial<Remedy> = {}): Remedy {
  return { kind, message, stations: [], shells: [], ...rest };
}

/** The problem of what is concerned, as it is. */
function presentProblem({ model, scope }: Trouble): ChoiceProblem {
  return restrictedTo(choiceProblem(model, stationOptions(model), KEEP_ALL), scope);
}

/** Held or forbidden choices, each let go alone. */
function releases({ model }: Trouble): Found {
  return [...model.wishes.keys()].map((at) => {
    const { id, name } = model.stations[at]!;
    return remedy('release', `Remove locks and exclusions at ${name}.`, { stations: [id] });
  });
}

/** Rods that belong to a pin, each let go to any pin. */
function rodsMoved({ model, group }: Trouble): Found {
  const engines = new Set(group.map((at) => model.stations[at]!.engine));
  return model.housings.flatMap((housing) => {
    if (!FAMILY_TABLE[housing.family].housingsMove || housing.station === null || !engines.has(housing.engine))
      return [];
    const left = model.stations.find(({ id }) => id === housing.station)!;
    return [
      remedy('move-rod', `Let rod ${housing.name} leave ${left.name}.`, {
        stations: [left.id],
        housings: [housing.id],
      }),
    ];
  });
}

/** Halves as a list to get. */
function listed(model: FitModel, missing: ReadonlyMap<number, number>): { shells: Remedy['shells']; text: string } {
  const halves = [...missing].map(([shell, count]) => ({ shell: model.shells[shell]!, count }));
  return {
    shells: halves.map(({ shell, count }) => ({ id: shell.id, count })),
    text: halves.map(({ shell, count }) => `${count} × ${shell.name}`).join(', '),
  };
}

function purchase({ model, scope, questions }: Trouble): { found: Found; count: number } {
  const missing = fewestHalves(questions, model, scope, KEEP_ALL);
  if (missing === null || missing.size === 0) return { found: [], count: Number.POSITIVE_INFINITY };
  const { shells, text } = listed(model, missing);
  const isPriced = [...missing.keys()].every((shell) => model.shells[shell]!.price > 0);
  const cheapest = isPriced ? ', the cheapest purchase' : '';
  const count = shells.reduce((sum, next) => sum + next.count, 0);
  return { found: [remedy('buy', `Get ${text}${cheapest}.`, { shells })], count };
}

/** What an extra with a new wall stands for: per side the half to get, by kind. */
interface NewHalf {
  readonly half: 'upper' | 'lower';
  readonly wall: Nanometres;
  /** Width over the flanges; null: none. */
  readonly width: number | null;
  readonly undersize: string;
  readonly like: ModelShell;
}
type Got = { readonly bought: readonly number[]; readonly made: readonly NewHalf[] };

/** A new wall counts as dearer than a kind that is on the list, so that it is asked for only where it saves a half. */
const NEW_WALL = 1.001;

/** Halves that a new one is tried beside; of longer lists new ones come in pairs. */
const MOST_BESIDE = 300;

/** Walls of one undersize lie within this of each other, nm. Common practice: bands of a few µm; the least undersize is 0.125 on a wall. */
const ONE_UNDERSIZE = 50_000;

/**
 * Tells the undersize that a half with a new wall would be sold as, where halves of its family name undersizes: that of a kind whose
 * walls it is near; standard, where it is as much thinner as that undersize says. A standard wall is not an undersize.
 *
 * @returns for a kind and a wall; null when nobody makes such a wall in the series, as far as the list tells
 */
function undersizesOf(own: readonly ModelShell[], unit: Unit): (like: ModelShell, wall: number) => string | null {
  const walls = new Map<string, Set<number>>();
  for (const { undersize, wall } of own) walls.set(undersize, (walls.get(undersize) ?? new Set()).add(wall));
  if (walls.size === 0 || (walls.size === 1 && walls.has(''))) return () => '';
  const near = (undersize: string, wall: number) =>
    [...walls.get(undersize)!].some((other) => Math.abs(wall - other) <= ONE_UNDERSIZE);
  return ({ undersize }, wall) => {
    if (near(undersize, wall)) return undersize;
    const under = Number(undersize);
    return undersize !== '' && under > 0 && near(undersize, wall + lengthOfNumber(under / 2, unit)) ? '' : null;
  };
}

/** Widths over the flanges that keep an end play, nm: the one on its aim, within the range; null: no end play is asked for. */
function widthAsked(endPlay: ModelEndPlay | null, unit: Unit): { least: number; most: number; best: number } | null {
  if (endPlay === null) return null;
  const { free, low, high, aim } = endPlay;
  const [best = free - aim] = newWalls(free - high, free - low, free - aim, unit);
  return { least: free - high, most: free - low, best };
}

/** Ways to serve a station with halves whose walls are not on the list: a pair of one wall, or one beside a half that is there. */
function newWallExtras({ model, unit }: Trouble, at: number, housing: number): Extra<Got>[] {
  const station = model.stations[at]!;
  const own = model.shells.filter((shell) => shell.family === station.family && fitsPlace(shell, station.position));
  const wish = model.wishes.get(at);
  if (wish && (wish.upper !== null || wish.lower !== null || (wish.housing !== null && wish.housing !== housing)))
    return [];
  if (wish?.noHousings.includes(housing)) return [];
  const bare = model.housings[housing]!.bore - station.journal;
  const { low, high } = limitsWith(station, model.housings[housing]!);
  const flanges = widthAsked(station.endPlay, unit);
  if (flanges !== null && (flanges.least > flanges.most || flanges.most <= 0)) return [];
  const undersizeOf = undersizesOf(own, unit);
  const extras: Extra<Got>[] = [];
  const column = model.shells.length + housing;
  const put = (made: readonly NewHalf[], beside: number | null, miss: number) => {
    extras.push({
      choice: {
        cost: Math.round(made.length * COST_OF_A_HALF * NEW_WALL) + Math.min(Math.abs(miss), 1e6),
        uses: [
          beside !== null && made[0]!.half === 'lower' ? beside : -1,
          beside !== null && made[0]!.half === 'upper' ? beside : -1,
          column,
        ],
        deviation: miss,
      },
      means: { bought: [], made },
    });
  };
  const keeps = (width: number | null) =>
    flanges === null || (width !== null && width >= flanges.least && width <= flanges.most);
  const kinds = new Map(own.map((shell) => [`${shell.series}|${shell.undersize}`, shell]));
  for (const like of kinds.values()) {
    const gap = bare + offsetOfPair(station, like.series);
    for (const wall of newWalls((gap - high) / 2, (gap - low) / 2, (gap - station.aim) / 2, unit)) {
      const undersize = undersizeOf(like, wall);
      if (undersize === null) continue;
      const width = flanges === null ? like.width : keeps(like.width) ? like.width : flanges.best;
      put(
        (['upper', 'lower'] as const).map((half) => ({ half, wall, width, undersize, like })),
        null,
        gap - station.aim - 2 * wall,
      );
    }
  }
  if (wish?.unmixed || own.length > MOST_BESIDE) return extras;
  model.shells.forEach((beside, which) => {
    if (beside.family !== station.family || beside.stock < 1 || !fitsPlace(beside, station.position)) return;
    if (wish?.noShells.includes(which)) return;
    if (flanges !== null && (beside.width ?? 0) > flanges.most) return;
    const { wall: there } = beside;
    const gap = bare + offsetOfPair(station, beside.series);
    const width = flanges === null || keeps(beside.width) ? beside.width : flanges.best;
    for (const half of ['upper', 'lower'] as const) {
      if (beside.half === half) continue;
      for (const wall of newWalls(gap - high - there, gap - low - there, gap - station.aim - there, unit)) {
        if (undersizeOf(beside, wall) !== beside.undersize) continue;
        const made = { ...beside, half, wall };
        const fault = half === 'upper' ? pairFault(made, beside, model.rules) : pairFault(beside, made, model.rules);
        const one: NewHalf = { half, wall, width, undersize: beside.undersize, like: beside };
        if (fault === null) put([one], which, gap - station.aim - wall - there);
      }
    }
  });
  return extras;
}

/** Walls that are not on the list, and halves that are: the fewest of both that do. Only where that is fewer than of the list alone. */
function newWall(trouble: Trouble, boughtCount: number): Found {
  const { model, scope, unit, questions } = trouble;
  const places = housingsByStation(model);
  const bought = boughtExtras(model, scope);
  const extras = scope.map((at, which): Extra<Got>[] => [
    ...bought[which]!.map(({ choice, means }) => ({ choice, means: { bought: means, made: [] } })),
    ...places[at]!.flatMap((housing) => newWallExtras(trouble, at, housing)),
  ]);
  const answer = elasticChoice(questions, presentProblem(trouble), extras);
  if (answer === null) return [];
  const made = new Map<string, { half: NewHalf; count: number }>();
  const missing = new Map<number, number>();
  for (const { means } of answer.taken) {
    for (const shell of means.bought) missing.set(shell, (missing.get(shell) ?? 0) + 1);
    for (const half of means.made) {
      const { family, series, positions } = half.like;
      const key = JSON.stringify([half.half, half.wall, half.width, family, series, half.undersize, positions]);
      made.set(key, { half, count: (made.get(key)?.count ?? 0) + 1 });
    }
  }
  const count = [...made.values(), ...[...missing.values()].map((of) => ({ count: of }))].reduce(
    (sum, next) => sum + next.count,
    0,
  );
  if (made.size === 0 || count >= boughtCount) return [];
  const taken = new Set(model.shells.map(({ id }) => id));
  const newShells = [...made.values()].map(({ half: { half, wall, width, undersize, like }, count: stock }) => {
    let id = `${half} ${lengthText(wall, unit)}`;
    while (taken.has(id)) id = `${id} new`;
    taken.add(id);
    return {
      id,
      name: id,
      family: like.family,
      series: like.series,
      half,
      wall,
      ...(width === null ? {} : { width: nanometres(width) }),
      undersize,
      ...(like.positions === null ? {} : { positions: like.positions }),
      stock,
      price: 0,
    };
  });
  const kinds = [...made.values()].map(({ half: { half, wall, width, undersize, like }, count: many }) => {
    const under = undersize === '' ? '' : `, ${undersize} under`;
    const wide = width === null ? '' : `, ${lengthText(nanometres(width), unit)} over the flanges`;
    return `${many} ${half} ${like.family} ${many === 1 ? 'shell' : 'shells'}, series ${like.series}${under}, with a wall of ${lengthText(wall, unit)}${wide}`;
  });
  const { shells, text } = listed(model, missing);
  const also = shells.length > 0 ? `, and ${text}` : '';
  return [remedy('wall', `Get ${kinds.join(' and ')}${also}.`, { shells, newShells })];
}

function rulesChanged(trouble: Trouble): Found {
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

/** Pairs of one station that are looked at one by one; of more of them each upper half with its nearest lower half. */
const MOST_PAIRS = 40_000;

/** The pairs with stock at a station that keep its end play, in every housing it may take, whatever the oil clearance. */
function anywhere({ model, questions }: Trouble, at: number): readonly Placed[] {
  return questions.once(model, `anywhere ${at}`, () => everyPlaced(model, at)) ?? [];
}

interface Placed {
  readonly pair: ShellPair;
  readonly housing: number;
  readonly clearance: number;
}

function everyPlaced(model: FitModel, at: number): Placed[] {
  const station = model.stations[at]!;
  const wish = model.wishes.get(at);
  const { family, position } = station;
  const open = model.shells.filter((shell) => isOpenShell(shell, family, position));
  const count = (side: 'upper' | 'lower') => open.filter(({ half }) => half !== side).length;
  const isLong = count('lower') * count('upper') > MOST_PAIRS;
  const windows = isLong ? new PairWindows(model.shells, family, model.rules, position) : null;
  const pairs = isLong ? [] : shellPairs(model.shells, family, model.rules, position);
  return housingsByStation(model)[at]!.flatMap((housing) => {
    const bare = model.housings[housing]!.bore - station.journal;
    const { low, high } = limitsWith(station, model.housings[housing]!);
    const rangeOf = (series: string | null) => {
      const gap = bare + offsetOfPair(station, series);
      return { least: gap - high, most: gap - low, aim: gap - station.aim };
    };
    const near = windows?.uppers.flatMap((upper) => {
      const lower = windows.nearest(upper, rangeOf);
      return lower === null ? [] : [pairOf(model.shells, upper, lower, model.rules)];
    });
    return (near ?? pairs)
      .filter((pair) => isWished(wish, { ...pair, housing }))
      .filter((pair) => station.endPlay === null || endPlayCost(station.endPlay, pair, 1) !== null)
      .map((pair) => ({ pair, housing, clearance: clearanceWith(station, model.housings[housing]!, pair) }));
  });
}

/** A journal ground to where halves of the drawer bring it on its aim: one journal, the least metal off. Grinding only takes metal off. */
function regrinds(trouble: Trouble): Found {
  const { model, group, scope, unit, questions } = trouble;
  const problem = presentProblem(trouble);
  const may = new Set(group);
  const extras = scope.map((at): Extra<number>[] => {
    if (!may.has(at)) return [];
    const station = model.stations[at]!;
    return anywhere(trouble, at).flatMap(({ pair, housing, clearance }): Extra<number>[] => {
      const off = station.aim - clearance;
      const { low, high } = limitsWith(station, model.housings[housing]!);
      if (off <= 0 || station.journal - off <= 0 || station.aim < low || station.aim > high) return [];
      const uses = [pair.upper, pair.lower, model.shells.length + housing] as const;
      return [{ choice: { cost: off, uses, deviation: 0 }, means: off }];
    });
  });
  const answer = onlyOne(questions, problem, extras);
  if (answer === null) return [];
  const station = model.stations[scope[answer.station]!]!;
  const size = nanometres(station.journal - answer.means);
  return [
    remedy(
      'regrind',
      `Grind the journal of ${station.name} to ${lengthText(size, unit)} (${lengthText(answer.means, unit)} under), if the maker's data allow it.`,
      { stations: [station.id], journal: size },
    ),
  ];
}

/** The least change at one station alone: one by one, those of the least possible cost first. */
function onlyOne<Means>(
  questions: FitQuestions,
  problem: ChoiceProblem,
  extras: readonly (readonly Extra<Means>[])[],
): { station: number; means: Means; cost: number } | null {
  const leastOf = (list: readonly Extra<Means>[]) =>
    list.reduce((least, { choice }) => Math.min(least, choice.cost), Number.POSITIVE_INFINITY);
  const order = extras
    .map((list, station) => ({ station, least: leastOf(list) }))
    .filter(({ least }) => least < Number.POSITIVE_INFINITY)
    .sort((a, b) => a.least - b.least || a.station - b.station);
  let best: { station: number; means: Means; cost: number } | null = null;
  for (const { station, least } of order) {
    if (best !== null && least >= best.cost) break;
    const answer = elasticChoice(
      questions,
      problem,
      extras.map((list, at) => (at === station ? list : [])),
    );
    const [taken] = answer?.taken ?? [];
    if (taken && (best === null || answer!.cost < best.cost)) {
      best = { station, means: taken.means, cost: answer!.cost };
    }
  }
  return best;
}

/** Limits of single stations moved just far enough, the nearest first. */
function limitsMoved(trouble: Trouble): Found {
  const { model, group, scope, unit, questions } = trouble;
  const problem = presentProblem(trouble);
  const may = new Set(group);
  const found: { by: number; remedy: Remedy }[] = [];
  for (const side of ['low', 'high'] as const) {
    for (const [which, at] of scope.entries()) {
      if (!may.has(at)) continue;
      const station = model.stations[at]!;
      const extras = anywhere(trouble, at).flatMap(({ pair, housing, clearance }): Extra<number>[] => {
        const { low, high } = limitsWith(station, model.housings[housing]!);
        const by = side === 'low' ? low - clearance : clearance - high;
        const isElse = side === 'low' ? clearance <= high : clearance >= low;
        const isSensible =
          by <= model.rules.limitShare * (station.high - station.low) && (side === 'high' || station.low - by > 0);
        if (by <= 0 || !isElse || !isSensible) return [];
        const uses = [pair.upper, pair.lower, model.shells.length + housing] as const;
        return [{ choice: { cost: by, uses, deviation: clearance - station.aim }, means: by }];
      });
      if (extras.length === 0) continue;
      const answer = elasticChoice(
        questions,
        problem,
        scope.map((_, other) => (other === which ? extras : [])),
      );
      const by = answer?.taken[0]?.means;
      if (by === undefined) continue;
      const limit = nanometres(station[side] + (side === 'low' ? -by : by));
      found.push({
        by,
        remedy: remedy(
          'limit',
          `Change the ${side} limit at ${station.name} to ${lengthText(limit, unit)} (now ${lengthText(station[side], unit)}), if the maker allows.`,
          { stations: [station.id], limit: { side, value: limit } },
        ),
      });
    }
  }
  return found
    .sort((a, b) => a.by - b.by)
    .slice(0, MOST_LIMITS)
    .map((one) => one.remedy);
}

/**
 * Single changes that make everything concerned fit. Each asks for the least of its kind, and each was applied to the whole problem,
 * which was solved again, before it is offered. Cheapest first: what costs nothing (a held choice, a rod moved), halves to get,
 * another wall, a rule, grinding, a limit.
 */
export function remediesFor(trouble: Trouble): Remedy[] {
  const { found, count } = purchase(trouble);
  const isLarge = trouble.group.length > MOST_STATIONS || trouble.scope.length > 4 * MOST_STATIONS;
  const kinds = isLarge
    ? [() => found]
    : [
        () => releases(trouble),
        () => rodsMoved(trouble),
        () => found,
        () => newWall(trouble, count),
        () => rulesChanged(trouble),
        () => regrinds(trouble),
        () => limitsMoved(trouble),
      ];
  return kinds.flatMap((offered) => (trouble.questions.canAsk() ? offered().filter((one) => helps(trouble, one)) : []));
}
