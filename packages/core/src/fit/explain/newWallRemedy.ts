import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { lengthText } from '../../measure/lengthText.js';
import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import { limitsWith, type ModelEndPlay, type ModelShell, offsetOfPair } from '../model/fitModel.js';
import { fitsPlace, pairFault } from '../model/shellPairs.js';
import { housingsByStation } from '../model/stationOptions.js';
import { type Extra, elasticChoice } from './elasticChoice.js';
import { boughtExtras, COST_OF_A_HALF } from './fewestHalves.js';
import { newWalls } from './newWalls.js';
import { type Found, listed, presentProblem, remedy, type Trouble } from './trouble.js';

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
export function newWall(trouble: Trouble, boughtCount: number): Found {
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
