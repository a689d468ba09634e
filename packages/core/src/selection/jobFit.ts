import { type ThrustFlanges, thrustFlanges } from '../endPlay/thrustFlanges.js';
import { clearanceLimitsOf } from '../engineType/limits.js';
import type { FitProblem, ProblemHousing, ProblemStation } from '../fit/model/fitProblem.js';
import { problemShellOf } from '../fit/model/problemShellOf.js';
import { type EffectiveSize, possibleSizes, readingsSpread } from '../measure/effectiveSize.js';
import { nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { FEATURE_TABLE } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { shellLabel } from '../shell/half.js';
import { jobStations } from '../station/jobStations.js';
import { countedFamilies, isUncounted } from './countedShells.js';
import { countsInSpread } from './countsInSpread.js';
import { type LeftOut, type Ready, sortOut } from './readyStations.js';
import { rodsAndPins } from './rodsAndPins.js';
import { rulesOfProblem } from './ruleTable.js';
import type { SelectionJob } from './selectionJob.js';
import { shellsInOrder } from './shellsInOrder.js';
import { wishesOf } from './stationWishes.js';

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
  const sortedFixed = sortOut(job, fixed, ({ id, bore }) => [{ size: bore, name: id }]);
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
