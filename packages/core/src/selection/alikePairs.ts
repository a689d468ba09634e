import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { fitsPlace, type PairedHalf, pairFault } from '../fit/model/shellPairs.js';
import { nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import type { JobShell } from '../shell/jobShell.js';
import { type JobStation, offsetAt } from '../station/jobStations.js';
import { countedFamilies, isUncounted } from './countedShells.js';
import type { SelectionJob } from './selectionJob.js';
import { shellsInOrder } from './shellsInOrder.js';

/** What of an engine says which pairs there are: its halves and its rules. */
export type PairStock = Pick<SelectionJob, 'shells' | 'rules'>;

/** Halves that give the same clearance wherever they go, in the order of the shells. */
interface AlikeHalves {
  /** What they have in common. */
  readonly shell: PairedHalf & Pick<JobShell, 'band'>;
  readonly halves: readonly { readonly id: string; readonly at: number; readonly isOnlyOne: boolean }[];
}

const alikeOf = new WeakMap<SelectionJob['shells'], Map<string, readonly AlikeHalves[]>>();

/**
 * The halves of a family that are there and fit a place, those that are alike together: an engine may take from many hundreds. Worked out once
 * for its shells.
 */
export function alikeHalves(job: PairStock, family: Family, position: string): readonly AlikeHalves[] {
  const ofPlace = alikeOf.get(job.shells) ?? new Map<string, readonly AlikeHalves[]>();
  alikeOf.set(job.shells, ofPlace);
  const place = `${family} ${position}`;
  const known = ofPlace.get(place);
  if (known) return known;
  const groups = new Map<string, { shell: AlikeHalves['shell']; halves: AlikeHalves['halves'][number][] }>();
  const isCounted = countedFamilies(job).has(family);
  shellsInOrder(job).forEach(({ id, shell }, at) => {
    // What is free in the workshop's drawer is not known here: such a half counts as there.
    const stock = shell.line === null ? (shell.stock ?? Number.POSITIVE_INFINITY) : Number.POSITIVE_INFINITY;
    if (isCounted && isUncounted(shell)) return;
    if (shell.family !== family || stock < 1 || !fitsPlace({ positions: shell.positions ?? null }, position)) return;
    const { series, half, wall, band, undersize = '' } = shell;
    const key = JSON.stringify([series, half, wall, undersize, band?.low, band?.high]);
    const group = groups.get(key) ?? { shell: { family, series, half, wall, undersize, band }, halves: [] };
    group.halves.push({ id, at, isOnlyOne: stock < 2 });
    groups.set(key, group);
  });
  const alike = [...groups.values()];
  ofPlace.set(place, alike);
  return alike;
}

/** Pairs of two groups of alike halves: each of the one over each of the other. */
export interface AlikePairs {
  readonly upper: AlikeHalves;
  readonly lower: AlikeHalves;
}

/**
 * How many pairs two groups make; a half that there is only one of cannot serve on both sides.
 *
 * @example countPairs({ upper: { halves: [{}, {}] }, lower: { halves: [{}, {}, {}] } }) // 6
 */
export function countPairs({ upper, lower }: AlikePairs): number {
  const twice = upper === lower ? upper.halves.filter(({ isOnlyOne }) => isOnlyOne).length : 0;
  return upper.halves.length * lower.halves.length - twice;
}

/** The pairs of two groups, one after another, in the order of the shells. */
export function* pairsOf({ upper, lower }: AlikePairs) {
  for (const one of upper.halves) {
    for (const other of lower.halves) if (one !== other || !one.isOnlyOne) yield { upper: one, lower: other };
  }
}

/** True if the halves of a pair are among those of two groups. */
export function hasHalves(
  { upper, lower }: AlikePairs,
  pair: { readonly upper: string; readonly lower: string } | null,
): boolean {
  return (
    pair !== null &&
    upper.halves.some(({ id }) => id === pair.upper) &&
    lower.halves.some(({ id }) => id === pair.lower)
  );
}

/** Pairs that give one clearance at any station: their walls, and those at their thinnest and thickest, come to the same. */
interface EvenPairs {
  readonly first: AlikePairs;
  readonly groups: readonly AlikePairs[];
  readonly count: number;
}

/** Halves in the order of their walls, so that those in a range of walls are found without going through all. */
export class ByWall {
  private readonly sorted: readonly { readonly alike: AlikeHalves; readonly at: number }[];

  constructor(halves: readonly AlikeHalves[]) {
    this.sorted = halves
      .map((alike, at) => ({ alike, at }))
      .sort((one, other) => one.alike.shell.wall - other.alike.shell.wall || one.at - other.at);
  }

  /** The halves whose walls are from `low` to `high`, nm, in the order in which they were given. */
  between(low: number, high: number): AlikeHalves[] {
    const found: { readonly alike: AlikeHalves; readonly at: number }[] = [];
    for (let at = this.first(low); at < this.sorted.length; at += 1) {
      const one = this.sorted[at]!;
      if (one.alike.shell.wall > high) break;
      found.push(one);
    }
    return found.sort((one, other) => one.at - other.at).map(({ alike }) => alike);
  }

  /** Where the first half stands whose wall is not below a length. */
  private first(wall: number): number {
    let [low, high] = [0, this.sorted.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.sorted[middle]!.alike.shell.wall < wall) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

/** By the halves of an engine and its rules: another reading, or another choice, makes no other pairs. */
const evenPairsOf = new WeakMap<
  SelectionJob['shells'],
  WeakMap<SelectionJob['rules'], Map<string, readonly EvenPairs[]>>
>();

/** Every pair that a job's rules allow at a place, by what it gives there; worked out once for its halves and rules. */
export function evenPairs(job: PairStock, family: Family, position: string): readonly EvenPairs[] {
  const ofShells =
    evenPairsOf.get(job.shells) ?? new WeakMap<SelectionJob['rules'], Map<string, readonly EvenPairs[]>>();
  evenPairsOf.set(job.shells, ofShells);
  const known = ofShells.get(job.rules) ?? new Map<string, readonly EvenPairs[]>();
  ofShells.set(job.rules, known);
  const place = JSON.stringify([family, position]);
  const before = known.get(place);
  if (before) return before;
  const rules = job.rules;
  const halves = alikeHalves(job, family, position);
  // Hundreds of kinds make tens of thousands of pairs: a key is a number wherever the walls have no bands.
  const seriesOf = [...new Set(halves.map(({ shell }) => shell.series))];
  const places = new Map(seriesOf.map((series, at) => [series, at]));
  const mixedSeries = seriesOf.length;
  const found = new Map<number | string, { first: AlikePairs; groups: AlikePairs[]; count: number }>();
  const lowers = new ByWall(halves.filter(({ shell }) => shell.half !== 'upper'));
  const step = rules.mixedHalves ? rules.maxWallStep : 0;
  for (const upper of halves) {
    if (upper.shell.half === 'lower') continue;
    for (const lower of lowers.between(upper.shell.wall - step, upper.shell.wall + step)) {
      if (pairFault(upper.shell, lower.shell, rules) !== null) continue;
      const count = countPairs({ upper, lower });
      if (count === 0) continue;
      const [one, other] = [upper.shell, lower.shell];
      // What a trial has shown belongs to a series: a pair of two series has none of it.
      const series = one.series === other.series ? places.get(one.series)! : mixedSeries;
      const walls = (one.wall + other.wall) * (mixedSeries + 1) + series;
      const gives =
        one.band || other.band
          ? `${walls} ${(one.band?.low ?? one.wall) + (other.band?.low ?? other.wall)} ${(one.band?.high ?? one.wall) + (other.band?.high ?? other.wall)}`
          : walls;
      const even = found.get(gives);
      if (even) {
        even.groups.push({ upper, lower });
        even.count += count;
      } else found.set(gives, { first: { upper, lower }, groups: [{ upper, lower }], count });
    }
  }
  const pairs = [...found.values()];
  known.set(place, pairs);
  return pairs;
}

export function clearanceOf(
  { bore, journal, ...station }: MeasuredStation,
  { upper, lower }: AlikePairs,
): OilClearance {
  return oilClearance({
    bore,
    journal,
    upperWall: upper.shell.wall,
    lowerWall: lower.shell.wall,
    upperBand: upper.shell.band,
    lowerBand: lower.shell.band,
    offset: offsetAt(station, [upper.shell.series, lower.shell.series])?.offset ?? nanometres(0),
  });
}

type MeasuredStation = JobStation & {
  readonly bore: NonNullable<JobStation['bore']>;
  readonly journal: NonNullable<JobStation['journal']>;
};

export function isMeasured(station: JobStation): station is MeasuredStation {
  return station.bore !== null && station.journal !== null;
}
