import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import type { FitPlan } from '../fit/fitPlan.js';
import type { Family, FitRequestInput } from '../fit/fitRequest.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { nanometres } from '../measure/nanometres.js';
import type { AcceptedChoice, JobDocument } from './jobDocument.js';
import {
  type JobStation,
  type MeasuredPart,
  mainStations,
  measuredParts,
  partName,
  rodStations,
} from './jobStations.js';
import type { Reading } from './reading.js';
import { modelShellsOf, shellLabel } from './stationCandidates.js';

/** Why a station, or a rod, does not take part in the choice. */
export interface LeftOut {
  readonly station: string;
  readonly reason: 'not-measured' | 'blocked' | 'no-aim' | 'out-of-round' | 'no-limits' | 'no-shells' | 'no-rod';
}

/** What keeps the whole choice from being asked. */
export type NoChoice = 'no-limits' | 'no-shells' | 'nothing-measured' | 'no-drawer';

/** Halves of the workshop's drawer that the job may take, by the drawer's own ids. */
export type FreeHalves = ReadonlyMap<string, number>;

export type JobFit =
  | {
      readonly ok: true;
      readonly request: FitRequestInput;
      readonly leftOut: readonly LeftOut[];
      /** From the names used in the request to the job's shell ids. */
      readonly shellIds: ReadonlyMap<string, string>;
      /** From the names of free housings used in the request to the numbers of the rods. */
      readonly rodNumbers: ReadonlyMap<string, number>;
    }
  | { readonly ok: false; readonly reason: NoChoice; readonly leftOut: readonly LeftOut[] };

/** Names for the shells that a person can read in a message, unique in the request. */
function requestNames(job: JobDocument): Map<string, string> {
  const names = new Map<string, string>();
  for (const { id } of modelShellsOf(job)) {
    const label = shellLabel(job.shells[id]!);
    let name = label;
    for (let copy = 2; names.has(name); copy += 1) name = `${label} #${copy}`;
    names.set(name, id);
  }
  return names;
}

/** Limits for a clearance of mean sizes, so that the tightest and the loosest keep the data sheet's. */
export function limitsOfMean(limits: ClearanceLimits, bore: Scatter, journal: Scatter): ClearanceLimits {
  return {
    low: nanometres(limits.low + bore.below + journal.above),
    high: nanometres(limits.high - bore.above - journal.below),
  };
}

/** How far single readings lie from the mean: a bore or journal below it, and above it, nm. */
export interface Scatter {
  readonly below: number;
  readonly above: number;
}

export function scatterOf({ size }: Pick<MeasuredPart, 'size'>): Scatter {
  // A band is no scatter: it says what the size may be, and the plan then gives a chance.
  return size && size.count > 0
    ? { below: size.nominal - size.smallest, above: size.largest - size.nominal }
    : { below: 0, above: 0 };
}

type Ready = JobStation & { readonly low: number; readonly high: number };

/** Sorts the stations of one family into those that can be chosen for and those that cannot, with limits for mean sizes. */
function sortOut(
  job: JobDocument,
  stations: readonly JobStation[],
  boreScatter: (station: JobStation) => Scatter,
  isBoreKnown: (station: JobStation) => boolean,
): { ready: Ready[]; leftOut: LeftOut[] } {
  const ready: Ready[] = [];
  const leftOut: LeftOut[] = [];
  for (const station of stations) {
    const leave = (reason: LeftOut['reason']) => leftOut.push({ station: station.id, reason });
    const { journal, limits } = station;
    if (station.findings.length > 0) leave('blocked');
    else if (!journal || !isBoreKnown(station)) leave('not-measured');
    else if (!limits) leave('no-limits');
    else if (!Object.values(job.shells).some(({ family }) => family === station.family)) leave('no-shells');
    else if (station.aim === null) leave('no-aim');
    else {
      const bore = boreScatter(station);
      const { low, high } = limitsOfMean(limits, bore, scatterOf({ size: journal }));
      if (low > high) leave('out-of-round');
      else ready.push({ ...station, low, high });
    }
  }
  return { ready, leftOut };
}

type Wishes = NonNullable<FitRequestInput['wishes']>;

/** What is held and forbidden at the stations that take part, in the names of the request. */
function wishesOf(job: JobDocument, stations: readonly Ready[], names: ReadonlyMap<string, string>): Wishes {
  const nameOf = new Map([...names].map(([name, id]) => [id, name]));
  const hold: Wishes['hold'] = [];
  const forbid: Wishes['forbid'] = [];
  for (const { id: station } of stations) {
    const wish = job.wishes[station];
    if (!wish) continue;
    const upper = wish.upper === null ? undefined : nameOf.get(wish.upper);
    const lower = wish.lower === null ? undefined : nameOf.get(wish.lower);
    if (upper !== undefined || lower !== undefined) {
      hold.push({ station, ...(upper === undefined ? {} : { upper }), ...(lower === undefined ? {} : { lower }) });
    }
    for (const id of wish.noShells) {
      const shell = nameOf.get(id);
      if (shell !== undefined) forbid.push({ station, shell });
    }
    if (wish.unmixed) forbid.push({ station, mixed: true });
  }
  return { hold, forbid };
}

/** The rods that take part: measured, and inside the data sheet. */
function readyRods(job: JobDocument, readings: readonly Reading[]): { rods: MeasuredPart[]; leftOut: LeftOut[] } {
  const leftOut: LeftOut[] = [];
  const rods = measuredParts(job, readings, 'bigEnd').filter(({ name, size, findings }) => {
    if (findings.length > 0) leftOut.push({ station: name, reason: 'blocked' });
    else if (!size) leftOut.push({ station: name, reason: 'not-measured' });
    return size !== null && findings.length === 0;
  });
  return { rods, leftOut };
}

/**
 * The fit request for the mains and, where they are part of the job, the rods. The aim is judged on the mean sizes; each
 * station's limits are narrowed by its own scatter, so that the tightest clearance keeps the low limit and the loosest the
 * high one; at a pin by the largest scatter of the rods that may go there. What is not measured, or blocked by a size outside the
 * data sheet, is left out and named.
 *
 * @param onShelf what the job may take of the workshop's halves that it draws on; null while that is not known, and then nothing can
 *   be asked that needs it
 */
export function jobFit(job: JobDocument, readings: readonly Reading[], onShelf: FreeHalves | null = null): JobFit {
  const { unit, rules } = job;
  const names = requestNames(job);
  const mains = mainStations(job, readings);
  const sortedMains = sortOut(
    job,
    mains,
    (station) => scatterOf({ size: station.bore }),
    (station) => station.bore !== null,
  );
  const { rods, leftOut: rodsOut } = job.withRods ? readyRods(job, readings) : { rods: [], leftOut: [] };
  const keptOn = new Map(
    rods.flatMap((rod) => {
      const pin = job.rods[String(rod.number)]?.pin ?? null;
      return pin === null ? [] : [[partName('pin', pin), rod] as const];
    }),
  );
  const free = rods.filter((rod) => ![...keptOn.values()].includes(rod));
  const sortedPins = sortOut(
    job,
    rodStations(job, readings, {}),
    ({ id }) => {
      const candidates = keptOn.has(id) ? [keptOn.get(id)!] : free;
      return candidates
        .map(scatterOf)
        .reduce(
          (worst, { below, above }) => ({ below: Math.max(worst.below, below), above: Math.max(worst.above, above) }),
          { below: 0, above: 0 },
        );
    },
    ({ id }) => keptOn.has(id) || free.length > 0,
  );
  // A rod kept on a pin that does not take part stays with it; pins beyond the number of rods have none.
  const keptHere = rods.filter((rod) => sortedPins.ready.some(({ id }) => keptOn.get(id) === rod));
  const openPins = sortedPins.ready.filter(({ id }) => !keptOn.has(id));
  const tooMany = openPins.length > free.length;
  const pins = tooMany ? sortedPins.ready.filter(({ id }) => keptOn.has(id)) : sortedPins.ready;
  const leftOut = [
    ...sortedMains.leftOut,
    ...sortedPins.leftOut,
    ...(tooMany ? openPins.map(({ id }) => ({ station: id, reason: 'no-rod' as const })) : []),
    ...rodsOut,
  ];
  const ready = [...sortedMains.ready, ...pins];
  if (ready.length === 0) {
    if (names.size === 0 && job.limits.mainClearance) return { ok: false, reason: 'no-shells', leftOut };
    const hasLimits = job.limits.mainClearance !== null || (job.withRods && job.limits.rodClearance !== null);
    return { ok: false, reason: hasLimits ? 'nothing-measured' : 'no-limits', leftOut };
  }

  if (onShelf === null && Object.values(job.shells).some(({ line }) => line !== null)) {
    return { ok: false, reason: 'no-drawer', leftOut };
  }
  const length = (value: number) => numberOfLength(nanometres(value), unit);
  const rodNumbers = new Map(rods.map((rod) => [rod.name, rod.number]));
  const banded = (band: { low: number; high: number }) => ({ low: length(band.low), high: length(band.high) });
  const bandOf = ({ count, smallest, largest }: EffectiveSize) =>
    count > 0 ? null : banded({ low: smallest, high: largest });
  const housing = (id: string, family: Family, bore: EffectiveSize, station: string | null) => {
    const boreBand = bandOf(bore);
    return { id, family, bore: length(bore.nominal), ...(boreBand ? { boreBand } : {}), station };
  };
  const isChosenFor = (family: Family) => ready.some((station) => station.family === family);
  return {
    ok: true,
    leftOut,
    shellIds: names,
    rodNumbers,
    request: {
      format: 'fettle.fit-request/1',
      unit,
      stations: ready.map((station) => ({
        id: station.id,
        family: station.family,
        journal: length(station.journal!.nominal),
        ...(bandOf(station.journal!) ? { journalBand: bandOf(station.journal!)! } : {}),
        aim: length(station.aim!),
        low: length(station.low),
        high: length(station.high),
      })),
      housings: [
        ...sortedMains.ready.map(({ id, bore }) => housing(`bore ${id}`, 'main', bore!, id)),
        ...(isChosenFor('rod')
          ? [
              ...keptHere.map((rod) =>
                housing(rod.name, 'rod', rod.size!, pins.find(({ id }) => keptOn.get(id) === rod)!.id),
              ),
              ...free.map((rod) => housing(rod.name, 'rod', rod.size!, null)),
            ]
          : []),
      ],
      shells: [...names].map(([name, id]) => {
        const shell = job.shells[id]!;
        return {
          id: name,
          family: shell.family,
          series: shell.series,
          half: shell.half,
          wall: length(shell.wall),
          ...(shell.band ? { wallBand: banded(shell.band) } : {}),
          ...(shell.undersize === undefined ? {} : { undersize: shell.undersize }),
          stock: shell.line === null ? shell.stock : (onShelf?.get(shell.line) ?? 0),
        };
      }),
      rules: {
        mixedHalves: rules.mixedHalves,
        acrossSeries: rules.acrossSeries,
        maxWallStep: numberOfLength(rules.maxWallStep, 'mm'),
        thinnerHalf: rules.thinnerHalf,
        maxSpread: {
          main: rules.maxSpread === null ? null : numberOfLength(rules.maxSpread, 'mm'),
          rod: rules.maxRodSpread === null ? null : numberOfLength(rules.maxRodSpread, 'mm'),
        },
        tightWeight: rules.tightWeight,
        mixedPenalty: rules.mixedPenalty,
      },
      wishes: wishesOf(job, ready, names),
    },
  };
}

/** The halves, and at a pin the rod, that a plan gives each station, by the job's own shell ids, ready to be accepted into the job. */
export function plannedHalves(
  job: JobDocument,
  asked: JobFit & { ok: true },
  plan: FitPlan,
): AcceptedChoice['stations'] {
  const half = (name: string) => {
    const shell = asked.shellIds.get(name)!;
    const { wall, band } = job.shells[shell]!;
    return { shell, label: shellLabel(job.shells[shell]!), wall, ...(band ? { band } : {}) };
  };
  return Object.fromEntries(
    plan.stations.map(({ id, housing, upper, lower, clearance }) => [
      id,
      {
        upper: half(upper),
        lower: half(lower),
        predicted: lengthOfNumber(clearance, plan.unit),
        rod: asked.rodNumbers.get(housing) ?? null,
      },
    ]),
  );
}
