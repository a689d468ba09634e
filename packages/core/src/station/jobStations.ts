import { clearanceAim } from '../clearance/clearanceAim.js';
import type { MarkDisagreement } from '../codes/markDisagreement.js';
import { onceFor } from '../document/onceFor.js';
import { clearanceKey, limitAt } from '../engineType/limits.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import type { Limit } from '../measure/lengthSchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { type Feature, featureOf, partName } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { allParts, type MeasuredPart, type SizeFinding } from '../reading/measuredParts.js';
import { type Position, placeOfMain } from '../shell/position.js';
import type { Undersize } from '../shell/undersize.js';
import type { StationJob } from './stationJob.js';
import type { StationOffset } from './stationOffset.js';
import { offsetsOf } from './stationOffsets.js';
import { type StationTrial, stationTrials } from './stationTrial.js';

/** What is known about one station: a main, or a crankpin with the rod that is placed on it. */
export interface JobStation {
  /** `M1` at the front; `P1` the pin of the first rod from the front. */
  readonly id: string;
  readonly family: Family;
  readonly number: number;
  /** The place whose halves it takes, where it has one of its own. */
  readonly position: Position | null;
  /** Number of the rod on a pin; null at a main, or while no rod is placed. */
  readonly rod: number | null;
  readonly bore: EffectiveSize | null;
  readonly journal: EffectiveSize | null;
  /** Marks of its two parts, where the data sheet knows them. */
  readonly marks: { readonly bore: string | null; readonly journal: string | null };
  /** Where readings and marks of its parts disagree. */
  readonly disagreements: readonly (MarkDisagreement & { readonly feature: Feature })[];
  /** Clearance limits of the data sheet, or null. */
  readonly limits: Limit | null;
  /** Clearance aimed at, or null when what it is counted from is missing. */
  readonly aim: Nanometres | null;
  readonly findings: readonly SizeFinding[];
  /** The undersize that its journal was ground to; null for a standard one. */
  readonly undersize: Undersize | null;
  /** True if its housing was read with other fasteners than hold it now. */
  readonly isOutdated: boolean;
  /** What was measured with its shells in; null where it was not tried. */
  readonly tried: StationTrial | null;
  /** Trials of it before that one, with other parts or assembled before; oldest first. */
  readonly earlier: readonly StationTrial[];
  /** What trials say that its assembly adds to the sum of its parts, one a series of shells. */
  readonly offsets: readonly StationOffset[];
}

function stationOf(
  job: StationJob,
  family: Family,
  bore: MeasuredPart | null,
  journal: MeasuredPart,
  housingOf: (rod: number | null) => MeasuredPart | null,
): JobStation {
  const id = journal.name;
  const limits = limitAt(job, clearanceKey(family), journal.number);
  const { aim: aimRule, housingsMove, isInLine } = FAMILY_TABLE[family];
  const aim = job.rules[aimRule];
  const extra = job.rules.extras[id] ?? nanometres(0);
  const rod = housingsMove ? (bore?.number ?? null) : null;
  const sizes = { bore: bore?.size ?? null, journal: journal.size };
  return {
    id,
    family,
    number: journal.number,
    position: isInLine ? placeOfMain(job, journal.number) : null,
    rod,
    ...sizes,
    marks: { bore: bore?.mark ?? null, journal: journal.mark },
    disagreements: [bore, journal].flatMap((part) =>
      part?.disagreement ? [{ ...part.disagreement, feature: part.feature }] : [],
    ),
    limits,
    aim: clearanceAim(aim, limits, journal.size?.nominal ?? null, extra),
    findings: [...(bore?.findings ?? []), ...journal.findings],
    undersize: journal.undersize,
    isOutdated: bore?.isOutdated ?? false,
    ...stationTrials(job, { id, family, rod, journal, housingOf }),
    offsets: [],
  };
}

/** The stations of one family with what trials say of their assembly. */
function withOffsets(job: StationJob, family: Family, stations: readonly JobStation[]): JobStation[] {
  const offsets = offsetsOf(job, family, new Map(stations.map((station) => [station.id, station])));
  return stations.map((station) => ({ ...station, offsets: offsets.get(station.id)! }));
}

/**
 * What trials say that the assembly of a station adds to a pair; null where they say nothing. An offset belongs to one series: a pair of
 * two series has none.
 *
 * @param halves the series of both halves
 */
export function offsetAt(
  { offsets }: Pick<JobStation, 'offsets'>,
  [upper, lower]: readonly [string | undefined, string | undefined],
): StationOffset | null {
  return upper === lower ? (offsets.find((one) => one.series === upper) ?? null) : null;
}

/** The series of two halves of a job. */
export function seriesOfHalves(
  { shells }: Pick<StationJob, 'shells'>,
  { upper, lower }: { readonly upper: { readonly shell: string }; readonly lower: { readonly shell: string } },
): readonly [string | undefined, string | undefined] {
  return [shells[upper.shell]?.series, shells[lower.shell]?.series];
}

/**
 * The stations of one family from front to rear with their effective sizes, limits and aims; none where it is not part of the job.
 *
 * @param placed where housings move: per journal (`P1`) the number of its housing; a journal that is left out has none yet
 */
function familyStations(
  job: StationJob,
  readings: readonly Reading[],
  family: Family,
  placed: Readonly<Record<string, number>>,
): JobStation[] {
  if (!familiesOf(job).includes(family)) return [];
  const parts = allParts(job, readings);
  const housings = parts[featureOf(family, 'housing')];
  const numbered = (number: number | null | undefined) => (number == null ? null : (housings[number - 1] ?? null));
  return withOffsets(
    job,
    family,
    parts[featureOf(family, 'journal')].map((journal) => {
      if (FAMILY_TABLE[family].housingsMove) {
        return stationOf(job, family, numbered(placed[journal.name]), journal, numbered);
      }
      const own = numbered(journal.number);
      return stationOf(job, family, own, journal, () => own);
    }),
  );
}

/** The mains of a job from front to rear with their effective sizes, limits and aims. */
export function mainStations(job: StationJob, readings: readonly Reading[]): JobStation[] {
  return familyStations(job, readings, 'main', {});
}

/**
 * The crankpins of a job from front to rear, each with the rod placed on it; none where the rods are not part of the job.
 *
 * @param placed per pin (`P1`) the number of its rod; a pin that is left out has no rod yet
 */
export function rodStations(
  job: StationJob,
  readings: readonly Reading[],
  placed: Readonly<Record<string, number>>,
): JobStation[] {
  return familyStations(job, readings, 'rod', placed);
}

/** The pins that rods are kept on by the fitter's wish: per pin the rod's number. */
export function pinnedRods(job: StationJob): Record<string, number> {
  const placed: Record<string, number> = {};
  for (const [rod, { pin }] of Object.entries(job.rods)) if (pin !== null) placed[partName('pin', pin)] = Number(rod);
  return placed;
}

/** The rods that a choice puts on the pins: per pin the rod's number. */
export function placedRods(stations: NonNullable<StationJob['choice']>['stations']): Record<string, number> {
  return Object.fromEntries(
    Object.entries(stations).flatMap(([id, { rod }]) => (rod === null ? [] : [[id, rod] as const])),
  );
}

/** What a rod is called: its number, and its mark where it has one. */
export function rodLabel(job: Pick<StationJob, 'rods'>, number: number): string {
  const mark = job.rods[String(number)]?.mark ?? '';
  return mark === '' ? `R${number}` : `R${number} ${mark}`;
}

/**
 * All stations of an engine, family by family; a pin carries the rod that the accepted choice has put there, or that is kept on it. Worked out
 * once for a document and its readings, whoever asks.
 *
 * @param readings current readings only, any order
 */
export const jobStations: (job: StationJob, readings: readonly Reading[]) => readonly JobStation[] = onceFor(
  (job, readings) => {
    const placed = { ...pinnedRods(job), ...placedRods(job.choice?.stations ?? {}) };
    return familiesOf(job).flatMap((family) => familyStations(job, readings, family, placed));
  },
);

/**
 * The crankpins as a selection begins: without a rod, for any may come there; and with the rods that are kept on them, or that the accepted choice
 * has put there, which is what trials of them were made with. Worked out once for a document and its readings.
 */
export const pinsForSelection: (
  job: StationJob,
  readings: readonly Reading[],
) => { readonly open: readonly JobStation[]; readonly withRods: readonly JobStation[] } = onceFor((job, readings) => ({
  open: rodStations(job, readings, {}),
  withRods: rodStations(job, readings, { ...placedRods(job.choice?.stations ?? {}), ...pinnedRods(job) }),
}));
