import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import { type ThrustFlanges, thrustFlanges } from '../endPlay/thrustFlanges.js';
import { clearanceLimitsOf } from '../engineType/limits.js';
import { limitsWith, type Scatter } from '../fit/model/fitModel.js';
import type { FitProblem, Forbid, Hold, ProblemHousing, ProblemStation } from '../fit/model/fitProblem.js';
import type { FitSolution } from '../fit/model/fitSolution.js';
import { problemShellOf } from '../fit/model/problemShellOf.js';
import { acceptance } from '../measure/acceptance.js';
import { type EffectiveSize, possibleSizes, readingsSpread } from '../measure/effectiveSize.js';
import type { Limit } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { FEATURE_TABLE, partName } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { mayTakePin } from '../part/rodBanks.js';
import { allParts, type MeasuredPart } from '../reading/measuredParts.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { shellLabel } from '../shell/half.js';
import { clearanceUncertainty, wallUncertainty } from '../station/clearanceKnown.js';
import { type JobStation, jobStations, pinsForSelection } from '../station/jobStations.js';
import { offsetsOf } from '../station/stationTrial.js';
import { countedFamilies, isUncounted } from './countedShells.js';
import { rulesOfProblem } from './ruleTable.js';
import type { SelectionJob } from './selectionJob.js';
import { shellsInOrder } from './stationCandidates.js';

/** Why a station, or a rod, does not take part in the choice. */
export interface LeftOut {
  readonly station: string;
  readonly reason:
    | 'not-measured'
    | 'blocked'
    | 'no-aim'
    | 'out-of-round'
    | 'uncertain'
    | 'no-limits'
    | 'no-shells'
    | 'no-rod'
    | 'two-rods'
    | 'rod-blocked'
    | 'rod-not-measured';
  /** The rods that are kept on the pin, where that is the reason. */
  readonly rods?: readonly string[];
}

/** What keeps the whole choice from being asked. */
export type NoChoice = 'no-limits' | 'no-shells' | 'nothing-measured' | 'no-drawer';

/** Halves of the workshop's drawer that the job may take, by the drawer's own ids. */
export type FreeHalves = ReadonlyMap<string, number>;

export type JobFit =
  | {
      readonly ok: true;
      /** Stations, halves and rods by the job's own ids. */
      readonly problem: FitProblem;
      readonly leftOut: readonly LeftOut[];
      /** Numbers of the rods by the ids of their housings. */
      readonly rodNumbers: ReadonlyMap<string, number>;
    }
  | { readonly ok: false; readonly reason: NoChoice; readonly leftOut: readonly LeftOut[] };

/** What sentences call the halves of a job, by id: their labels, numbered where two are alike. */
function shellNames(job: SelectionJob): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const { id } of shellsInOrder(job)) {
    const label = shellLabel(job.shells[id]!);
    let name = label;
    for (let copy = 2; taken.has(name); copy += 1) name = `${label} #${copy}`;
    taken.add(name);
    names.set(id, name);
  }
  return names;
}

/** How far a part's single readings lie from its size. A band is no scatter: it says what the size may be, and the plan then gives a chance. */
export function scatterOf({ size }: Pick<MeasuredPart, 'size'>): Scatter {
  return size?.kind === 'read'
    ? { below: size.nominal - size.smallest, above: size.largest - size.nominal }
    : { below: 0, above: 0 };
}

/** Whether the limits leave a clearance that the tightest and the loosest of two parts both keep. */
export function hasRoom(limits: ClearanceLimits, bore: Scatter, journal: Scatter): boolean {
  const { low, high } = limitsWith({ ...limits, scatter: journal }, { scatter: bore });
  return low <= high;
}

/**
 * The limits of a station's clearance: the data sheet's; where the fitter asks for a chance, only as far as every pair of halves is inside
 * with it, by the worst known of the halves and housings that may come there. Null where nothing is known well enough for that.
 */
function acceptedLimits(
  job: SelectionJob,
  station: JobStation,
  housings: readonly Pick<MeasuredPart, 'size'>[],
): ClearanceLimits | null {
  const { limits, journal, family } = station;
  const { leastChance } = job.rules;
  if (!limits || !journal || leastChance === null) return limits;
  const halves = Object.values(job.shells).filter((shell) => shell.family === family);
  const [worst] = halves
    .map((shell) => ({ shell, u: wallUncertainty(job.instruments, shell) }))
    .sort((one, other) => other.u - one.u);
  const walls = worst ? [worst.shell, worst.shell] : [];
  const offset = Math.max(0, ...station.offsets.map(({ u }) => u));
  const known = housings.flatMap(({ size }) =>
    size ? [clearanceUncertainty(job.instruments, { bore: size, journal, walls }, offset)] : [],
  );
  const inner = acceptance(limits, Math.max(0, ...known), leastChance);
  if (!inner || Math.ceil(inner.low) > Math.floor(inner.high)) return null;
  return { low: nanometres(Math.ceil(inner.low)), high: nanometres(Math.floor(inner.high)) };
}

type Ready = JobStation & { readonly limits: Limit };

/** Sorts the stations of one family into those that can be chosen for and those that cannot. */
function sortOut(
  job: SelectionJob,
  stations: readonly JobStation[],
  /** The housings that could go to a station. */
  housingsOf: (station: JobStation) => readonly Pick<MeasuredPart, 'size'>[],
): { ready: Ready[]; leftOut: LeftOut[] } {
  const ready: Ready[] = [];
  const leftOut: LeftOut[] = [];
  for (const station of stations) {
    const leave = (reason: LeftOut['reason']) => leftOut.push({ station: station.id, reason });
    const { journal, limits } = station;
    const housings = housingsOf(station).filter(({ size }) => size !== null);
    const accepted = acceptedLimits(job, station, housings);
    if (station.findings.length > 0) leave('blocked');
    else if (!journal || housings.length === 0) leave('not-measured');
    else if (!limits) leave('no-limits');
    else if (!Object.values(job.shells).some(({ family }) => family === station.family)) leave('no-shells');
    else if (station.aim === null) leave('no-aim');
    else if (!accepted) leave('uncertain');
    else if (!housings.some((housing) => hasRoom(accepted, scatterOf(housing), scatterOf({ size: journal })))) {
      leave('out-of-round');
    } else ready.push({ ...station, limits: { ...limits, ...accepted } });
  }
  return { ready, leftOut };
}

/** What is held and forbidden at the stations that take part. */
function wishesOf(
  job: SelectionJob,
  stations: readonly Ready[],
  rods: readonly { readonly rod: MeasuredPart; readonly pin: string | null }[],
): FitProblem['wishes'] {
  const hold: Hold[] = [];
  const forbid: Forbid[] = [];
  /** A half that the job still has. */
  const known = (shell: string | null) => (shell !== null && job.shells[shell] ? shell : undefined);
  for (const { id: station, family, number } of stations) {
    if (FAMILY_TABLE[family].housingsMove) {
      for (const { rod, pin } of rods) {
        if (pin !== station && !mayTakePin(job, rod.number, number)) forbid.push({ station, housing: rod.name });
      }
    }
    const wish = job.wishes[station];
    if (!wish) continue;
    const [upper, lower] = [known(wish.upper), known(wish.lower)];
    if (upper !== undefined || lower !== undefined) {
      hold.push({ station, upper, lower });
    }
    for (const shell of wish.noShells) if (known(shell) !== undefined) forbid.push({ station, shell });
    if (wish.unmixed) forbid.push({ station, mixed: true });
  }
  return { hold, forbid };
}

/** Rods and pins: who may go where, and who is left out and why. */
interface RodsAndPins {
  readonly pins: readonly Ready[];
  /** Per pin (`P1`) the rod that is kept on it. */
  readonly keptOn: ReadonlyMap<string, MeasuredPart>;
  readonly free: readonly MeasuredPart[];
  readonly leftOut: readonly LeftOut[];
}

/**
 * A rod that the fitter keeps on a pin stays with it whatever becomes of the pin: it never goes elsewhere. A pin whose rod is not
 * measured, is blocked, or shares it with another kept one is left out; the others are chosen for.
 */
function rodsAndPins(job: SelectionJob, readings: readonly Reading[]): RodsAndPins {
  if (!job.withRods) return { pins: [], keptOn: new Map(), free: [], leftOut: [] };
  const rodsOut: LeftOut[] = [];
  const { bigEnd: rods } = allParts(job, readings);
  const isReady = ({ size, findings }: MeasuredPart) => size !== null && findings.length === 0;
  for (const rod of rods) {
    if (rod.findings.length > 0) rodsOut.push({ station: rod.name, reason: 'blocked' });
    else if (!rod.size) rodsOut.push({ station: rod.name, reason: 'not-measured' });
  }
  const keptAt = new Map<string, MeasuredPart[]>();
  const free: MeasuredPart[] = [];
  for (const rod of rods) {
    const pin = job.rods[String(rod.number)]?.pin ?? null;
    if (pin === null) {
      if (isReady(rod)) free.push(rod);
      continue;
    }
    const name = partName('pin', pin);
    keptAt.set(name, [...(keptAt.get(name) ?? []), rod]);
  }
  const keptOn = new Map<string, MeasuredPart>();
  const pinsOut: LeftOut[] = [];
  const { open: openPins, withRods } = pinsForSelection(job, readings);
  // What was tried at a pin was tried with the rod that is on it now; for the others of its family it tells something all the same.
  const offsets = offsetsOf(job, new Map(withRods.map((station) => [station.id, station])), (pin) => keptAt.has(pin));
  const all = openPins.map((station) => ({ ...station, offsets: offsets.get(station.id)! }));
  const usable = all.filter(({ id }) => {
    const [kept, another] = keptAt.get(id) ?? [];
    if (kept === undefined) return true;
    const names = keptAt.get(id)!.map(({ name }) => name);
    const leave = (reason: LeftOut['reason']) => pinsOut.push({ station: id, reason, rods: names });
    if (another !== undefined) leave('two-rods');
    else if (kept.findings.length > 0) leave('rod-blocked');
    else if (!kept.size) leave('rod-not-measured');
    else keptOn.set(id, kept);
    return keptOn.has(id);
  });
  const sorted = sortOut(job, usable, ({ id }) => (keptOn.has(id) ? [keptOn.get(id)!] : free));
  const open = sorted.ready.filter(({ id }) => !keptOn.has(id));
  const tooMany = open.length > free.length;
  return {
    // Pins beyond the number of rods have none.
    pins: tooMany ? sorted.ready.filter(({ id }) => keptOn.has(id)) : sorted.ready,
    keptOn,
    free,
    leftOut: [
      ...pinsOut,
      ...sorted.leftOut.map((one) =>
        one.reason === 'not-measured' && !keptOn.has(one.station) && free.length === 0 && isRead(all, one.station)
          ? { ...one, reason: 'no-rod' as const }
          : one,
      ),
      ...(tooMany ? open.map(({ id }) => ({ station: id, reason: 'no-rod' as const })) : []),
      ...rodsOut,
    ],
  };
}

function isRead(stations: readonly JobStation[], id: string): boolean {
  return stations.some((station) => station.id === id && station.journal !== null);
}

/** True if a station counts in the largest spread of its family: all rods, and the mains among which it was asked for. */
export function countsInSpread(
  { spreadMains }: Pick<SelectionJob['rules'], 'spreadMains'>,
  { family, number }: Pick<JobStation, 'family' | 'number'>,
): boolean {
  return !FAMILY_TABLE[family].isInLine || spreadMains == null || spreadMains.includes(number);
}

/**
 * What the search is asked for the mains and, where they are part of the job, the rods. The aim is judged on the mean sizes, the low limit
 * on the tightest clearance and the high limit on the loosest, for each pairing of rod and pin by its own readings. What is not
 * measured, or blocked by a size outside the data sheet, is left out and named.
 *
 * @param onShelf what the job may take of the workshop's halves that it draws on; null while that is not known, and then nothing can
 *   be asked that needs it
 */
export function jobFit(job: SelectionJob, readings: readonly Reading[], onShelf: FreeHalves | null = null): JobFit {
  const { unit, rules } = job;
  const names = shellNames(job);
  const fixed = jobStations(job, readings).filter(({ family }) => !FAMILY_TABLE[family].housingsMove);
  const sortedFixed = sortOut(job, fixed, ({ bore }) => [{ size: bore }]);
  const { pins, keptOn, free, leftOut: rodsOut } = rodsAndPins(job, readings);
  const leftOut = [...sortedFixed.leftOut, ...rodsOut];
  const ready = [...sortedFixed.ready, ...pins];
  if (ready.length === 0) {
    if (names.size === 0 && job.limits.mainClearance) return { ok: false, reason: 'no-shells', leftOut };
    const hasLimits = familiesOf(job).some((family) => clearanceLimitsOf(job.limits, family) !== null);
    return { ok: false, reason: hasLimits ? 'nothing-measured' : 'no-limits', leftOut };
  }

  if (onShelf === null && Object.values(job.shells).some(({ line }) => line !== null)) {
    return { ok: false, reason: 'no-drawer', leftOut };
  }
  const kept = pins.flatMap(({ id }) => {
    const rod = keptOn.get(id);
    return rod ? [{ rod, pin: id }] : [];
  });
  const rods = [...kept, ...free.map((rod) => ({ rod, pin: null }))];
  const movers = ready.some(({ family }) => FAMILY_TABLE[family].housingsMove) ? rods : [];
  const hasPlaces = Object.values(job.shells).some(({ positions }) => positions !== undefined);
  const flanges = thrustFlanges(job);
  const counted = countedFamilies(job);
  return {
    ok: true,
    leftOut,
    rodNumbers: new Map(rods.map(({ rod }) => [rod.name, rod.number])),
    problem: {
      unit,
      stations: ready.map((station) => ({
        ...stationOf(station, flanges),
        position: hasPlaces ? (station.position ?? '') : '',
        inSpread: countsInSpread(rules, station),
      })),
      housings: [
        ...sortedFixed.ready.map(({ id, family, bore }) => housingOf(id, `bore ${id}`, family, bore!, id)),
        ...movers.map(({ rod, pin }) =>
          housingOf(rod.name, rod.name, FEATURE_TABLE[rod.feature].family, rod.size!, pin),
        ),
      ],
      shells: [...names].map(([id, name]) => {
        const shell = job.shells[id]!;
        // Where halves are counted, one that nobody counted is none on hand: it can be ordered.
        const own = isUncounted(shell) && counted.has(shell.family) ? 0 : shell.stock;
        return problemShellOf(id, name, shell, shell.line === null ? own : (onShelf?.get(shell.line) ?? 0));
      }),
      rules: rulesOfProblem(rules),
      wishes: wishesOf(job, ready, rods),
    },
  };
}

/** All that a size that is known by its mark may be; nothing of one that was read. */
function bandOf(size: EffectiveSize) {
  return size.kind === 'marked' ? possibleSizes(size) : undefined;
}

function stationOf(
  { id, family, journal, offsets, aim, limits }: Ready,
  flanges: ThrustFlanges | null,
): Omit<ProblemStation, 'position' | 'inSpread'> {
  return {
    id,
    name: id,
    engine: '',
    family,
    journal: journal!.nominal,
    journalBand: bandOf(journal!),
    journalReadings: readingsSpread(journal!) ?? undefined,
    offset: nanometres(0),
    offsets,
    aim: aim!,
    low: limits.low,
    high: limits.high,
    ...(flanges?.station === id
      ? {
          endPlay: {
            ...flanges.limit,
            reading: flanges.reading,
            fitted: flanges.fitted,
            aim: flanges.aim,
            weight: flanges.weight,
          },
        }
      : {}),
  };
}

function housingOf(
  id: string,
  name: string,
  family: Family,
  bore: EffectiveSize,
  station: string | null,
): ProblemHousing {
  return {
    id,
    name,
    engine: '',
    family,
    bore: bore.nominal,
    boreBand: bandOf(bore),
    boreReadings: readingsSpread(bore) ?? undefined,
    station,
  };
}

/** The halves, and at a pin the rod, that a plan gives each station, ready to be accepted into the job. */
export function plannedHalves(
  job: SelectionJob,
  asked: JobFit & { ok: true },
  { stations }: Pick<FitSolution, 'stations'>,
): AcceptedChoice['stations'] {
  const half = (shell: string) => {
    const { wall, band } = job.shells[shell]!;
    return { shell, label: shellLabel(job.shells[shell]!), wall, ...(band ? { band } : {}) };
  };
  return Object.fromEntries(
    stations.map(({ id, housing, upper, lower, clearance }) => [
      id,
      { upper: half(upper), lower: half(lower), predicted: clearance, rod: asked.rodNumbers.get(housing) ?? null },
    ]),
  );
}
