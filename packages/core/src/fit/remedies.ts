import { formatExactLength } from '../measure/formatLength.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { INSTRUMENT_DECIMALS, type Unit } from '../measure/unit.js';
import { restrictedTo } from './choice.js';
import type { ChoiceLimits } from './choiceLimits.js';
import { choiceProblem } from './choiceProblem.js';
import type { FitModel, ModelShell, ModelStation } from './fitModel.js';
import type { FitRemedy } from './fitPlan.js';
import { leastChoice } from './leastChoice.js';
import { housingsByStation, stationOptions } from './stationOptions.js';

/** Effort: stations that are looked at one by one, walls and journals that are tried. */
const MOST_STATIONS = 60;
const MOST_WALLS = 48;

type ShellsToGet = FitRemedy['shells'];

/** Everything that a remedy is looked for in. */
export interface Trouble {
  readonly model: FitModel;
  /** All stations that are to fit once the remedy is applied, by position. */
  readonly scope: readonly number[];
  /** The stations of the conflict, by position. */
  readonly group: readonly number[];
  /** The fewest halves that make everything fit, where buying helps. */
  readonly bought: ShellsToGet;
  readonly unit: Unit;
  readonly limits: ChoiceLimits;
}

function fits({ scope, limits }: Trouble, model: FitModel): boolean {
  return leastChoice(restrictedTo(choiceProblem(model, stationOptions(model)), scope), limits).status !== 'infeasible';
}

/** A length in a message, with its unit. */
export function lengthText(value: number, unit: Unit): string {
  return `${formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
}

function withStation(model: FitModel, at: number, change: Partial<ModelStation>): FitModel {
  return {
    ...model,
    stations: model.stations.map((station, other) => (other === at ? { ...station, ...change } : station)),
  };
}

/** Held or forbidden choices, each let go alone. */
function releases(trouble: Trouble): FitRemedy[] {
  const { model } = trouble;
  return [...model.wishes.keys()].flatMap((at) => {
    const wishes = new Map(model.wishes);
    wishes.delete(at);
    if (!fits(trouble, { ...model, wishes })) return [];
    const { id } = model.stations[at]!;
    return [
      {
        kind: 'release' as const,
        stations: [id],
        shells: [],
        message: `Let go of what is held or forbidden at ${id}.`,
      },
    ];
  });
}

/** Rods that belong to a pin, each let go to any pin. */
function rodsMoved(trouble: Trouble): FitRemedy[] {
  const { model, group } = trouble;
  const engines = new Set(group.map((at) => model.stations[at]!.engine));
  return model.housings.flatMap((housing, which) => {
    if (housing.family !== 'rod' || housing.station === null || !engines.has(housing.engine)) return [];
    const housings = model.housings.map((other, at) => (at === which ? { ...other, station: null } : other));
    if (!fits(trouble, { ...model, housings })) return [];
    return [
      {
        kind: 'move-rod' as const,
        stations: [housing.station],
        shells: [],
        message: `Let rod ${housing.id} leave ${housing.station}.`,
      },
    ];
  });
}

function purchase({ model, bought }: Trouble): FitRemedy[] {
  if (bought.length === 0) return [];
  const list = bought.map(({ id, count }) => `${count} × ${id}`).join(', ');
  const hasPrices = bought.every(({ id }) => model.shells.find((shell) => shell.id === id)!.price > 0);
  return [
    {
      kind: 'buy',
      stations: [],
      shells: [...bought],
      message: `Get ${list}${hasPrices ? ', the cheapest of such purchases' : ''}.`,
    },
  ];
}

/** Walls that would put a station of the conflict on its aim, beside a half that is there or as a pair. */
function wallsWanted({
  model,
  group,
}: Trouble): { half: 'upper' | 'lower' | 'pair'; wall: Nanometres; like: ModelShell }[] {
  const places = housingsByStation(model);
  const wanted = new Map<string, { half: 'upper' | 'lower' | 'pair'; wall: Nanometres; like: ModelShell }>();
  for (const at of group) {
    const station = model.stations[at]!;
    const own = model.shells.filter(({ family }) => family === station.family);
    for (const place of places[at]!) {
      const walls = model.housings[place]!.bore - station.journal + station.offset - station.aim;
      if (own[0])
        wanted.set(`pair ${walls / 2}`, { half: 'pair', wall: nanometres(Math.round(walls / 2)), like: own[0] });
      for (const like of own) {
        if (like.stock < 1) continue;
        const half = like.half === 'upper' ? 'lower' : 'upper';
        const wall = nanometres(walls - like.wall);
        if (wall > 0) wanted.set(`${half} ${wall} ${like.series}`, { half, wall, like });
      }
    }
  }
  return [...wanted.values()].slice(0, MOST_WALLS);
}

/** A wall that is not on the list: the first one that would do. */
function newWall(trouble: Trouble): FitRemedy[] {
  const { model, unit } = trouble;
  if (trouble.bought.length > 0) return [];
  for (const { half, wall, like } of wallsWanted(trouble)) {
    const sides = half === 'pair' ? (['upper', 'lower'] as const) : [half];
    const extra = sides.map((side) => ({ ...like, id: `+${side}`, half: side, wall, stock: 1 }));
    if (!fits(trouble, { ...model, shells: [...model.shells, ...extra] })) continue;
    const what = half === 'pair' ? 'an upper and a lower half' : half === 'upper' ? 'one upper half' : 'one lower half';
    return [
      {
        kind: 'wall',
        stations: [],
        shells: [],
        message: `Get ${what} of ${like.family} shell, series ${like.series}, with a wall of ${lengthText(wall, unit)}.`,
      },
    ];
  }
  return [];
}

function rulesChanged(trouble: Trouble): FitRemedy[] {
  const { model, unit } = trouble;
  const { rules } = model;
  const tries: { rules: typeof rules; message: string }[] = [];
  if (!rules.mixedHalves) tries.push({ rules: { ...rules, mixedHalves: true }, message: 'Allow mixed halves.' });
  if (rules.thinnerHalf !== 'either') {
    tries.push({ rules: { ...rules, thinnerHalf: 'either' }, message: 'Let the thinner half go to either side.' });
  }
  if (rules.mixedHalves) {
    const walls = model.shells.map(({ wall }) => wall);
    const steps = [...new Set(walls.flatMap((one) => walls.map((other) => Math.abs(one - other))))]
      .filter((step) => step > rules.maxWallStep)
      .sort((a, b) => a - b);
    const [step] = steps;
    if (step !== undefined) {
      tries.push({
        rules: { ...rules, maxWallStep: nanometres(step) },
        message: `Allow a wall step of ${lengthText(step, unit)} in a station (now ${lengthText(rules.maxWallStep, unit)}).`,
      });
    }
  }
  if (!rules.acrossSeries)
    tries.push({ rules: { ...rules, acrossSeries: true }, message: 'Allow halves of different series in a station.' });
  return tries
    .filter((attempt) => fits(trouble, { ...model, rules: attempt.rules }))
    .map(({ message }) => ({ kind: 'rule', stations: [], shells: [], message }));
}

/** A journal ground to where halves of the drawer bring it on its aim. Grinding only takes metal off. */
function regrinds(trouble: Trouble): FitRemedy[] {
  const { model, group, unit } = trouble;
  const places = housingsByStation(model);
  for (const at of group) {
    const station = model.stations[at]!;
    const own = model.shells.filter(({ family, stock }) => family === station.family && stock > 0);
    const sums = new Set(
      own.flatMap((upper) =>
        own.flatMap((lower) => (upper.half !== 'lower' && lower.half !== 'upper' ? [upper.wall + lower.wall] : [])),
      ),
    );
    const sizes = places[at]!.flatMap((place) =>
      [...sums].map((walls) => model.housings[place]!.bore - walls + station.offset - station.aim),
    )
      .filter((size) => size > 0 && size < station.journal)
      .sort((a, b) => b - a);
    for (const size of sizes.slice(0, MOST_WALLS)) {
      if (!fits(trouble, withStation(model, at, { journal: nanometres(size) }))) continue;
      const off = lengthText(station.journal - size, unit);
      return [
        {
          kind: 'regrind',
          stations: [station.id],
          shells: [],
          message: `Grind the journal of ${station.id} to ${lengthText(size, unit)} (${off} under), if the maker's data allow it.`,
        },
      ];
    }
  }
  return [];
}

/** One limit of one station moved just far enough. */
function limitsMoved(trouble: Trouble): FitRemedy[] {
  const { model, group, unit } = trouble;
  const found: { by: number; remedy: FitRemedy }[] = [];
  for (const at of group) {
    const station = model.stations[at]!;
    for (const side of ['low', 'high'] as const) {
      const wide = nanometres(side === 'low' ? station.low - 1e9 : station.high + 1e9);
      const opened = withStation(model, at, { [side]: wide });
      if (!fits(trouble, opened)) continue;
      const reached = stationOptions(opened)
        .of(at)
        .map(({ clearance }) => clearance);
      const steps = [...new Set(reached)]
        .filter((clearance) => (side === 'low' ? clearance < station.low : clearance > station.high))
        .sort((a, b) => (side === 'low' ? b - a : a - b));
      let from = 0;
      let to = steps.length - 1;
      while (from < to) {
        const middle = (from + to) >> 1;
        if (fits(trouble, withStation(model, at, { [side]: nanometres(steps[middle]!) }))) to = middle;
        else from = middle + 1;
      }
      const limit = steps[from]!;
      found.push({
        by: Math.abs(limit - station[side]),
        remedy: {
          kind: 'limit',
          stations: [station.id],
          shells: [],
          message: `A ${side} limit of ${lengthText(limit, unit)} at ${station.id} (now ${lengthText(station[side], unit)}) would do, if the maker's data allow it.`,
        },
      });
    }
  }
  return found.sort((a, b) => a.by - b.by).map(({ remedy }) => remedy);
}

/**
 * Single changes that make everything concerned fit. Each one was applied to the whole and solved before it is named.
 * Cheapest first: what costs nothing (a held choice, a rod moved), halves to get, another wall, a rule, grinding, a limit.
 */
export function remediesFor(trouble: Trouble): FitRemedy[] {
  if (trouble.group.length > MOST_STATIONS || trouble.scope.length > 4 * MOST_STATIONS) return purchase(trouble);
  return [
    ...releases(trouble),
    ...rodsMoved(trouble),
    ...purchase(trouble),
    ...newWall(trouble),
    ...rulesChanged(trouble),
    ...regrinds(trouble),
    ...limitsMoved(trouble).slice(0, 3),
  ];
}
