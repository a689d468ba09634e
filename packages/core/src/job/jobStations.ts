import { isSwappedSince } from '../assembly/swappedSince.js';
import { clearanceAim } from '../clearance/clearanceAim.js';
import { REFERENCE_C, sizeAt20 } from '../clearance/temperature.js';
import { type MarkDisagreement, markDisagreement } from '../codes/markDisagreement.js';
import { clearanceKey, limitAt } from '../engineType/limits.js';
import { type EffectiveSize, markedSize, readSize } from '../measure/effectiveSize.js';
import type { Limit } from '../measure/lengthSchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import type { Feature } from '../part/feature.js';
import { FEATURE_TABLE, partCount, partName, tellsSize } from '../part/feature.js';
import type { Material } from '../part/material.js';
import type { Reading, ReadingReason } from '../part/reading.js';
import { type Position, placeOfMain } from '../shell/position.js';
import type { Undersize } from '../shell/undersize.js';
import { undersizeOf } from '../shell/undersize.js';
import { suspectReadings } from './assessReading.js';
import type { JobDocument } from './jobDocument.js';
import { bandsOf, markedBands } from './jobMarks.js';
import { offsetsOf, type StationOffset, type StationTrial, stationTrials } from './stationTrial.js';

/** A size, or a shape, outside the data sheet's limits: no shell cures it. */
export interface SizeFinding {
  readonly feature: Feature;
  readonly kind: 'size' | 'out-of-round' | 'taper';
  /** Nanometres beyond the limit, above zero. */
  readonly by: Nanometres;
  readonly side: 'under' | 'over';
}

/** One measured part: a housing bore or a journal. */
export interface MeasuredPart {
  /** What it is called: `M3` for a main's bore or journal, `R2` for a rod's big end, `P2` for a pin. */
  readonly name: string;
  readonly feature: Feature;
  readonly number: number;
  /** From readings, or, where there are none, from the band of its mark. */
  readonly size: EffectiveSize | null;
  /** The mark it carries, where its data sheet knows it. */
  readonly mark: string | null;
  /** Where its readings and its mark disagree: the readings decide. */
  readonly disagreement: MarkDisagreement | null;
  /** The undersize that a journal was ground to; null for a standard one. */
  readonly undersize: Undersize | null;
  /** Whether it is a housing that was read with other fasteners than hold it now. */
  readonly isOutdated: boolean;
  /** When the last of its readings was taken after it was machined; null: none was. */
  readonly machinedAt: string | null;
  /** When the last of its readings took the place of a wrong one; null: none did. */
  readonly correctedAt: string | null;
  readonly shape: PartShape;
  /** Slots of the measuring scheme that have no size yet. */
  readonly missing: number;
  readonly findings: readonly SizeFinding[];
}

/** Whether readings are still to be taken: a mark is enough where the fitter chooses by marks alone. */
export function isWanting({ depth }: Pick<JobDocument, 'depth'>, { missing, mark }: MeasuredPart): boolean {
  return missing > 0 && !(depth === 'codes' && mark !== null);
}

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
  /** Whether its housing was read with other fasteners than hold it now. */
  readonly isOutdated: boolean;
  /** What was measured with its shells in; null where it was not tried. */
  readonly tried: StationTrial | null;
  /** Trials of it before that one, with other parts or assembled before; oldest first. */
  readonly earlier: readonly StationTrial[];
  /** What trials say that its assembly adds to the sum of its parts, one a series of shells. */
  readonly offsets: readonly StationOffset[];
}

/** When the last of some readings was taken that has one of some reasons; null: none. */
function lastFor(readings: readonly Reading[], reasons: readonly ReadingReason[]): string | null {
  return readings.reduce<string | null>((last, { taken, at }) => {
    const isOne = reasons.some((reason) => reason === taken?.reason);
    return isOne && (last === null || at > last) ? at : last;
  }, null);
}

/** Whether any of some readings was taken before a moment. */
function isReadBefore(readings: readonly Reading[], moment: string | null): boolean {
  return moment !== null && readings.some(({ nm, at }) => nm !== null && at < moment);
}

/** Whether any of some readings of a housing was taken with a cap that has changed places since. */
function isWithOtherCap(job: JobDocument, name: string, readings: readonly Reading[]): boolean {
  return readings.some(({ nm, at }) => nm !== null && isSwappedSince(job.assembly, [name], ['cap'], at));
}

function findingsOf(feature: Feature, size: EffectiveSize | null, limit: Limit | null): SizeFinding[] {
  if (!size || !limit) return [];
  const findings: SizeFinding[] = [];
  const found = (by: number, side: SizeFinding['side']) =>
    findings.push({ feature, kind: 'size', by: nanometres(by), side });
  if (size.smallest < limit.low) found(limit.low - size.smallest, 'under');
  if (size.largest > limit.high) found(size.largest - limit.high, 'over');
  return findings;
}

/** How far a part is from a cylinder, by its readings; null where they do not tell. */
export interface PartShape {
  /** The largest difference of two diameters in one plane. */
  readonly outOfRound: Nanometres | null;
  /** The largest difference of diameters between the planes, in one direction. */
  readonly taper: Nanometres | null;
}

function shapeOf(role: 'housing' | 'journal', own: readonly Reading[]): PartShape {
  const at = (slot: Reading['slot']) => own.find((reading) => reading.slot === slot)?.nm ?? null;
  const most = (pairs: readonly (readonly [Reading['slot'], Reading['slot']])[]) => {
    const apart = pairs.flatMap(([one, other]) => {
      const [a, b] = [at(one), at(other)];
      return a === null || b === null ? [] : [Math.abs(a - b)];
    });
    return apart.length === 0 ? null : nanometres(Math.max(...apart));
  };
  const bolt = role === 'housing' ? (['front', 'rear'] as const) : (['front-0', 'rear-0'] as const);
  return {
    outOfRound: most([
      [bolt[0], 'front-90'],
      [bolt[1], 'rear-90'],
    ]),
    taper: most([bolt, ['front-90', 'rear-90']]),
  };
}

/** The limits of shape that hold for a bore, and for a journal or pin. */
const SHAPE_LIMITS = {
  housing: { 'out-of-round': 'boreOutOfRound', taper: 'boreTaper' },
  journal: { 'out-of-round': 'outOfRound', taper: 'taper' },
} as const;

/** Out-of-round and taper of a part beyond the data sheet's limits. */
function shapeFindings(job: JobDocument, feature: Feature, { outOfRound, taper }: PartShape): SizeFinding[] {
  const shapes = [
    { kind: 'out-of-round', value: outOfRound ?? 0 },
    { kind: 'taper', value: taper ?? 0 },
  ] as const;
  return shapes.flatMap(({ kind, value }): SizeFinding[] => {
    const limit = job.limits[SHAPE_LIMITS[FEATURE_TABLE[feature].role][kind]];
    return limit && value > limit.high ? [{ feature, kind, by: nanometres(value - limit.high), side: 'over' }] : [];
  });
}

/** What a part is made of, by its coefficient of expansion; null where that is not known. Journals and pins are of steel. */
function expansionOf({ materials, warm }: JobDocument, feature: Feature): number | null {
  const alpha = (material: Material) => (material === 'unknown' ? null : warm[material]);
  if (FEATURE_TABLE[feature].role === 'journal') return warm.steel;
  if (FEATURE_TABLE[feature].family === 'rod') return alpha(materials.rods);
  const [block, caps] = [alpha(materials.block), alpha(materials.caps)];
  return block === null || caps === null ? null : (block + caps) / 2;
}

/**
 * The size at 20 °C that a reading tells: as it was read where no temperature was taken, or where it is not known what the part is made of.
 *
 * @returns null for a reading that is no size
 */
export function sizeAtReference(job: JobDocument, { nm, feature, taken }: Reading): Nanometres | null {
  const alpha = expansionOf(job, feature);
  if (nm === null || taken?.celsius == null || alpha === null) return nm;
  const gauge = { alpha: job.warm.steel, celsius: taken.gaugeCelsius ?? REFERENCE_C };
  return sizeAt20(nm, { alpha, celsius: taken.celsius }, gauge);
}

/**
 * All parts of one feature from front to rear (rods by number) with their effective sizes: from readings; from the band of its mark
 * where a part was not read.
 *
 * @param readings current readings only, any order; those without a size (unreadable text) do not count and stay missing
 */
export function measuredParts(job: JobDocument, readings: readonly Reading[], feature: Feature): MeasuredPart[] {
  const marked = markedBands(job, feature);
  const { family, role } = FEATURE_TABLE[feature];
  const isJournal = role === 'journal';
  const byPart = new Map<number, Reading[]>();
  // What is suspect stands apart and counts nowhere until it is confirmed.
  const suspect = new Set(suspectReadings(job, readings));
  for (const reading of readings) {
    if (reading.feature !== feature || suspect.has(reading)) continue;
    const own = byPart.get(reading.station);
    if (own) own.push(reading);
    else byPart.set(reading.station, [reading]);
  }
  return Array.from({ length: partCount(job.layout, feature) }, (_, at) => {
    const number = at + 1;
    const own = byPart.get(number) ?? [];
    const sizes = own.flatMap((reading) =>
      tellsSize(feature, reading.slot) ? (sizeAtReference(job, reading) ?? []) : [],
    );
    const shape = shapeOf(role, own);
    const count = own.filter(({ nm }) => nm !== null).length;
    const read = readSize(sizes);
    const band = marked.get(number) ?? null;
    const standard = findingsOf(feature, read, limitAt(job, feature, number));
    const undersize =
      read && isJournal && standard.length > 0 ? undersizeOf(read, job.sheet?.[family].undersizes ?? []) : null;
    return {
      name: partName(feature, number),
      feature,
      number,
      size: read ?? (band && markedSize(band)),
      mark: band?.mark ?? null,
      disagreement:
        read && band
          ? markDisagreement(
              isJournal ? 'journal' : 'bore',
              read.nominal,
              band.mark,
              bandsOf(job.sheet, feature),
              job.measuring.uncertainty,
            )
          : null,
      undersize,
      machinedAt: lastFor(own, ['part machined since']),
      correctedAt: lastFor(own, ['typed wrong', 'misread']),
      isOutdated:
        !isJournal &&
        (isReadBefore(own, job.fasteners[family].since) || isWithOtherCap(job, partName(feature, number), own)),
      shape,
      missing: Math.max(0, job.measuring.slots[feature].length - count),
      findings: [...(undersize ? [] : standard), ...shapeFindings(job, feature, shape)],
    };
  });
}

function stationOf(
  job: JobDocument,
  family: Family,
  bore: MeasuredPart | null,
  journal: MeasuredPart,
  housingOf: (rod: number | null) => MeasuredPart | null,
): JobStation {
  const id = journal.name;
  const limits = limitAt(job, clearanceKey(family), journal.number);
  const aim = family === 'main' ? job.rules.aim : job.rules.rodAim;
  const extra = job.rules.extras[id] ?? nanometres(0);
  const rod = family === 'rod' ? (bore?.number ?? null) : null;
  const sizes = { bore: bore?.size ?? null, journal: journal.size };
  return {
    id,
    family,
    number: journal.number,
    position: family === 'main' ? placeOfMain(job, journal.number) : null,
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
function withOffsets(job: JobDocument, stations: readonly JobStation[]): JobStation[] {
  const offsets = offsetsOf(job, new Map(stations.map((station) => [station.id, station])));
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
  { shells }: Pick<JobDocument, 'shells'>,
  { upper, lower }: { readonly upper: { readonly shell: string }; readonly lower: { readonly shell: string } },
): readonly [string | undefined, string | undefined] {
  return [shells[upper.shell]?.series, shells[lower.shell]?.series];
}

/** The mains of a job from front to rear with their effective sizes, limits and aims. */
export function mainStations(job: JobDocument, readings: readonly Reading[]): JobStation[] {
  const bores = measuredParts(job, readings, 'mainBore');
  return withOffsets(
    job,
    measuredParts(job, readings, 'mainJournal').map((journal, at) =>
      stationOf(job, 'main', bores[at]!, journal, () => bores[at]!),
    ),
  );
}

/**
 * The crankpins of a job from front to rear, each with the rod placed on it; none where the rods are not part of the job.
 *
 * @param placed per pin (`P1`) the number of its rod; a pin that is left out has no rod yet
 */
export function rodStations(
  job: JobDocument,
  readings: readonly Reading[],
  placed: Readonly<Record<string, number>>,
): JobStation[] {
  if (!job.withRods) return [];
  const rods = measuredParts(job, readings, 'bigEnd');
  const pins = measuredParts(job, readings, 'pin').map((pin) => {
    const rod = placed[pin.name];
    const rodAt = (number: number | null | undefined) => (number == null ? null : (rods[number - 1] ?? null));
    return stationOf(job, 'rod', rodAt(rod), pin, rodAt);
  });
  return withOffsets(job, pins);
}

/** The pins that rods are kept on by the fitter's wish: per pin the rod's number. */
export function pinnedRods(job: JobDocument): Record<string, number> {
  const placed: Record<string, number> = {};
  for (const [rod, { pin }] of Object.entries(job.rods)) if (pin !== null) placed[partName('pin', pin)] = Number(rod);
  return placed;
}

/** The rods that a choice puts on the pins: per pin the rod's number. */
export function placedRods(stations: NonNullable<JobDocument['choice']>['stations']): Record<string, number> {
  return Object.fromEntries(
    Object.entries(stations).flatMap(([id, { rod }]) => (rod === null ? [] : [[id, rod] as const])),
  );
}

/** What a rod is called: its number, and its mark where it has one. */
export function rodLabel(job: Pick<JobDocument, 'rods'>, number: number): string {
  const mark = job.rods[String(number)]?.mark ?? '';
  return mark === '' ? `R${number}` : `R${number} ${mark}`;
}
