import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { fitsPlace, type PairedHalf, type PairRules, pairFault } from '../fit/model/shellPairs.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import type { JobShell } from '../shell/jobShell.js';
import { type JobStation, offsetAt } from '../station/jobStations.js';
import { countedFamilies, isUncounted } from './countedShells.js';
import type { SelectionJob } from './selectionJob.js';

/** Words in the order of a list. */
const { compare: inOrder } = new Intl.Collator('en');
const SIDE_ORDER = { upper: 0, lower: 1, either: 2 } as const;

/** What of an engine says which pairs there are: its halves and its rules. */
export type PairStock = Pick<SelectionJob, 'shells' | 'rules'>;

type NamedShell = { readonly id: string; readonly shell: JobShell };

const orderedOf = new WeakMap<SelectionJob['shells'], readonly NamedShell[]>();

/** The shells of a job in a fixed order: family, series, half, wall, grade, id. Worked out once for its shells. */
export function shellsInOrder({ shells }: Pick<SelectionJob, 'shells'>): readonly NamedShell[] {
  const known = orderedOf.get(shells);
  if (known) return known;
  const ordered = Object.entries(shells)
    .map(([id, shell]) => ({ id, shell }))
    .sort(
      (a, b) =>
        inOrder(a.shell.family, b.shell.family) ||
        inOrder(a.shell.series, b.shell.series) ||
        SIDE_ORDER[a.shell.half] - SIDE_ORDER[b.shell.half] ||
        a.shell.wall - b.shell.wall ||
        inOrder(a.shell.grade, b.shell.grade) ||
        (a.id < b.id ? -1 : 1),
    );
  orderedOf.set(shells, ordered);
  return ordered;
}

/** What one pair of available halves would give at one station. */
export interface Candidate {
  readonly upper: string;
  readonly lower: string;
  readonly upperWall: Nanometres;
  readonly lowerWall: Nanometres;
  readonly mixed: boolean;
  readonly clearance: OilClearance;
  /** Nominal clearance minus aim; null without an aim. */
  readonly deviation: Nanometres | null;
  /** Null without limits on the data sheet. */
  readonly verdict: ClearanceVerdict | null;
}

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
function alikeHalves(job: PairStock, family: Family, position: string): readonly AlikeHalves[] {
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
interface AlikePairs {
  readonly upper: AlikeHalves;
  readonly lower: AlikeHalves;
}

/** How many pairs two groups make; a half that there is only one of cannot serve on both sides. */
function countPairs({ upper, lower }: AlikePairs): number {
  const twice = upper === lower ? upper.halves.filter(({ isOnlyOne }) => isOnlyOne).length : 0;
  return upper.halves.length * lower.halves.length - twice;
}

/** The pairs of two groups, one after another, in the order of the shells. */
function* pairsOf({ upper, lower }: AlikePairs) {
  for (const one of upper.halves) {
    for (const other of lower.halves) if (one !== other || !one.isOnlyOne) yield { upper: one, lower: other };
  }
}

/** Whether the halves of a pair are among those of two groups. */
function hasHalves({ upper, lower }: AlikePairs, pair: Pick<Candidate, 'upper' | 'lower'> | null): boolean {
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
class ByWall {
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
function evenPairs(job: PairStock, family: Family, position: string): readonly EvenPairs[] {
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

function clearanceOf({ bore, journal, ...station }: MeasuredStation, { upper, lower }: AlikePairs): OilClearance {
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

function isMeasured(station: JobStation): station is MeasuredStation {
  return station.bore !== null && station.journal !== null;
}

/** What the pairs at hand would give at a station, without naming each. */
export interface ClearancesAtHand {
  /** How many pairs the rules allow. */
  readonly count: number;
  /** Each clearance that some pair gives, tightest first, and whether one of these pairs is inside the limits all through. */
  readonly clearances: readonly { readonly nominal: Nanometres; readonly isInside: boolean }[];
}

/**
 * The clearances that the pairs at hand would give at a station, each once: what is drawn beside its limits.
 *
 * @returns none when the station is not measured
 */
export function clearancesAtHand(job: PairStock, station: JobStation): ClearancesAtHand {
  if (!isMeasured(station)) return { count: 0, clearances: [] };
  const pairs = evenPairs(job, station.family, station.position ?? '');
  const inside = new Map<Nanometres, boolean>();
  for (const { first } of pairs) {
    const clearance = clearanceOf(station, first);
    const isInside =
      station.limits !== null && clearanceVerdict(clearance, station.limits, job.rules.closeFraction).margin >= 0;
    inside.set(clearance.nominal, isInside || (inside.get(clearance.nominal) ?? false));
  }
  return {
    count: pairs.reduce((sum, { count }) => sum + count, 0),
    clearances: [...inside].map(([nominal, isInside]) => ({ nominal, isInside })).sort((a, b) => a.nominal - b.nominal),
  };
}

/**
 * The clearance that allowed pairs of halves with stock would give at a station, tightest first, of two alike in the order of the shells.
 *
 * @param most so many at most, those nearest to the aim; without an aim the tightest
 * @param chosen a pair that is told as well, however far off, where the rules allow it
 * @returns empty when the station is not measured: a clearance needs both a bore and a journal
 */
export function stationCandidates(
  job: PairStock,
  station: JobStation,
  most: number = Number.POSITIVE_INFINITY,
  chosen: Pick<Candidate, 'upper' | 'lower'> | null = null,
): Candidate[] {
  if (!isMeasured(station)) return [];
  const { aim, limits } = station;
  const ways = evenPairs(job, station.family, station.position ?? '').map(({ first, groups }) => {
    const clearance = clearanceOf(station, first);
    return { groups, clearance, off: aim === null ? clearance.nominal : Math.abs(clearance.nominal - aim) };
  });
  ways.sort((a, b) => a.off - b.off || a.clearance.nominal - b.clearance.nominal);
  const isChosen = ({ upper, lower }: { upper: { id: string }; lower: { id: string } }) =>
    upper.id === chosen?.upper && lower.id === chosen.lower;
  let lacksChosen = chosen !== null;
  const found: (Candidate & { readonly at: readonly [number, number] })[] = [];
  for (const { groups, clearance } of ways) {
    const deviation = aim === null ? null : nanometres(clearance.nominal - aim);
    const verdict = limits && clearanceVerdict(clearance, limits, job.rules.closeFraction);
    for (const group of groups) {
      if (found.length >= most && !hasHalves(group, chosen)) continue;
      const [upperWall, lowerWall] = [group.upper.shell.wall, group.lower.shell.wall];
      for (const pair of pairsOf(group)) {
        if (found.length >= most && !isChosen(pair)) continue;
        const { upper, lower } = pair;
        lacksChosen &&= !isChosen(pair);
        found.push({
          at: [upper.at, lower.at],
          upper: upper.id,
          lower: lower.id,
          upperWall,
          lowerWall,
          mixed: upperWall !== lowerWall,
          clearance,
          deviation,
          verdict,
        });
      }
    }
    if (found.length >= most && !lacksChosen) break;
  }
  return found
    .sort((a, b) => a.clearance.nominal - b.clearance.nominal || a.at[0] - b.at[0] || a.at[1] - b.at[1])
    .map(({ at: _, ...candidate }) => candidate);
}

/** The candidate that comes nearest to the aim, the tighter of two; null without an aim or a candidate. */
export function nearestCandidate(job: PairStock, station: JobStation): Candidate | null {
  return station.aim === null ? null : (stationCandidates(job, station, 1)[0] ?? null);
}

/** Why a pair that would do is not allowed, and the rules that would allow it. */
export interface BarredPair {
  readonly upper: string;
  readonly lower: string;
  readonly clearance: Nanometres;
  readonly why: 'series' | 'mixed' | 'step' | 'thinner-side';
  readonly rules: Partial<SelectionJob['rules']>;
}

/** Rules after which a pair is allowed; null where no rule would do it. */
function allowing(
  rules: SelectionJob['rules'],
  fault: ReturnType<typeof pairFault>,
  step: number,
): Pick<BarredPair, 'why' | 'rules'> | null {
  const stepped = { mixedHalves: true, maxWallStep: nanometres(Math.max(rules.maxWallStep, step)) };
  switch (fault) {
    case 'series':
      return { why: fault, rules: { acrossSeries: true, ...(step === 0 ? {} : stepped) } };
    case 'mixed':
    case 'step':
      return { why: fault, rules: stepped };
    case 'thinner-side':
      return { why: fault, rules: { thinnerHalf: 'either' } };
    default:
      return null;
  }
}

/**
 * The pairs that would be inside the limits of a station and that the rules forbid, nearest to its aim first: what a fitter may want to
 * allow at that one station, with a note.
 *
 * @param most how many are told
 * @returns empty where the station is not measured, or has no limits
 */
export function barredPairs(job: PairStock, station: JobStation, most: number): BarredPair[] {
  const { limits, aim, offsets } = station;
  if (!isMeasured(station) || !limits || most < 1) return [];
  const { rules } = job;
  const halves = alikeHalves(job, station.family, station.position ?? '');
  const lowers = new ByWall(halves.filter(({ shell }) => shell.half !== 'upper'));
  const wanted = aim ?? (limits.low + limits.high) / 2;
  const off = ({ clearance }: { clearance: Nanometres }) => Math.abs(clearance - wanted);
  // What a trial has shown is added to some pairs and not to others.
  const added = [0, ...offsets.map(({ offset }) => offset)];
  const room = station.bore.nominal - station.journal.nominal;
  const nearest: (AlikePairs & Pick<BarredPair, 'clearance' | 'why' | 'rules'>)[] = [];
  for (const upper of halves) {
    // Only the nearest are told: what is further off than as many as that is not looked into.
    const furthest = nearest.length < most ? Number.POSITIVE_INFINITY : off(nearest[most - 1]!);
    const from = Math.max(limits.low, wanted - furthest) - Math.max(...added);
    const to = Math.min(limits.high, wanted + furthest) - Math.min(...added);
    const wall = room - upper.shell.wall;
    for (const lower of lowers.between(wall - to, wall - from)) {
      const [one, other] = [upper.shell, lower.shell];
      const allowed = allowing(rules, pairFault(one, other, rules), Math.abs(one.wall - other.wall));
      if (!allowed || countPairs({ upper, lower }) === 0) continue;
      const { nominal, tightest, loosest } = clearanceOf(station, { upper, lower });
      if (tightest < limits.low || loosest > limits.high) continue;
      const pair = { upper, lower, clearance: nominal, ...allowed };
      const last = nearest[most - 1];
      if (last !== undefined && off(pair) >= off(last)) continue;
      // A pair of two series that is mixed on the wrong side as well takes more than one permission.
      if (pairFault(one, other, { ...rules, ...allowed.rules } as PairRules) !== null) continue;
      const at = nearest.findIndex((near) => off(pair) < off(near));
      nearest.splice(at < 0 ? nearest.length : at, 0, pair);
      if (nearest.length > most) nearest.pop();
    }
  }
  const told: BarredPair[] = [];
  for (const { upper, lower, ...pair } of nearest) {
    for (const ids of pairsOf({ upper, lower })) {
      if (told.length >= most) return told;
      told.push({ upper: ids.upper.id, lower: ids.lower.id, ...pair });
    }
  }
  return told;
}
