import { isSwappedSince } from '../assembly/swappedSince.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { readingUncertainty } from '../measure/instrument.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { combinedUncertainty } from '../measure/uncertainty.js';
import type { Family } from '../part/family.js';
import { partName } from '../part/feature.js';
import { assemblyOffset, isAsPredicted, whatToLookFor } from '../trial/assemblyOffset.js';
import { type MeasuredClearance, measuredClearance } from '../trial/trialClearance.js';
import type { Trial } from '../trial/trialSchema.js';
import { type KnownWall, sizeUncertainty, wallUncertainty } from './clearanceKnown.js';
import type { JobDocument } from './jobDocument.js';

/** What a trial of a station says, against what its parts let expect. */
export interface StationTrial {
  readonly trial: Trial;
  /** Null until something was read with its shells in. */
  readonly measured: MeasuredClearance | null;
  /** Standard uncertainty of what was measured, nm. */
  readonly uMeasured: number;
  /** From bore, journal and the walls that were in; null where one of them is missing. */
  readonly predicted: Nanometres | null;
  /** Measured minus predicted; null where either is missing. */
  readonly difference: Nanometres | null;
  /** Standard uncertainty of the difference, nm. */
  readonly u: number;
  readonly isAsPredicted: boolean;
  /** What to look for before it is believed, the likeliest first; empty where it is as predicted. */
  readonly lookFor: readonly string[];
  /** Why it says nothing any more; null while it does. */
  readonly isVoid: 'fasteners' | 'rod' | 'cap' | null;
  /** Whether other halves were accepted for the station since, or halves changed places. */
  readonly isSwapped: boolean;
}

interface Place {
  readonly id: string;
  readonly family: Family;
  readonly rod: number | null;
  readonly bore: EffectiveSize | null;
  readonly journal: EffectiveSize | null;
}

/** What the housing of a station is called: caps belong to a main or to a rod. */
function housingName({ id, family, rod }: Pick<Place, 'id' | 'family' | 'rod'>): string {
  return family === 'rod' && rod !== null ? partName('bigEnd', rod) : id;
}

/** How well a measured clearance is known: the gauge for itself where it was zeroed on the journal; with the journal's own size where not. */
function measuredUncertainty(
  job: JobDocument,
  { mode, count }: MeasuredClearance,
  journal: EffectiveSize | null,
): number {
  const { boreGauge, micrometer } = job.instruments;
  return combinedUncertainty([
    { u: readingUncertainty(boreGauge, count) },
    ...(mode === 'journal' || journal === null ? [] : [{ u: sizeUncertainty(micrometer, journal) }]),
  ]).u;
}

/**
 * How well measured minus predicted is known. Read as a bore, the journal stands in both and falls out; read on the journal, it is in the
 * prediction only (JCGM 100:2008, 5.2; cited from memory).
 */
function differenceUncertainty(
  job: JobDocument,
  trial: Trial,
  measured: MeasuredClearance,
  { bore, journal }: Place,
): number {
  const { instruments } = job;
  return combinedUncertainty([
    { u: readingUncertainty(instruments.boreGauge, measured.count) },
    ...(bore ? [{ u: sizeUncertainty(instruments.boreGauge, bore) }] : []),
    ...(journal && measured.mode === 'journal' ? [{ u: sizeUncertainty(instruments.micrometer, journal) }] : []),
    ...[trial.upper, trial.lower].map(({ shell }) => ({ u: wallUncertainty(instruments, job.shells[shell] ?? {}) })),
  ]).u;
}

/** How well a clearance is known that was measured with other halves: what was measured, the walls that were in, and those that are. */
export function changedUncertainty(
  job: JobDocument,
  { trial, uMeasured }: StationTrial,
  walls: readonly KnownWall[],
): number {
  const before = [trial.upper, trial.lower].map(({ shell }) => job.shells[shell] ?? {});
  return combinedUncertainty([
    { u: uMeasured },
    ...[...before, ...walls].map((wall) => ({ u: wallUncertainty(job.instruments, wall) })),
  ]).u;
}

/** What was tried at a station; null where nothing was. */
export function stationTrial(job: JobDocument, place: Place): StationTrial | null {
  const trial = job.trials[place.id];
  if (!trial) return null;
  const { bore, journal } = place;
  const measured = measuredClearance(Object.values(trial.readings), journal);
  const walls = trial.upper.wall + trial.lower.wall;
  const predicted = bore && journal ? nanometres(bore.nominal - journal.nominal - walls) : null;
  const difference = measured && predicted !== null ? nanometres(measured.nominal - predicted) : null;
  const u = measured ? differenceUncertainty(job, trial, measured, place) : 0;
  const { since } = job.fasteners[place.family];
  const chosen = job.choice?.stations[place.id];
  return {
    trial,
    measured,
    uMeasured: measured ? measuredUncertainty(job, measured, journal) : 0,
    predicted,
    difference,
    u,
    isAsPredicted: difference !== null && isAsPredicted({ difference, u }),
    lookFor: measured && predicted !== null ? whatToLookFor(measured.nominal, predicted, u) : [],
    isVoid:
      since !== null && trial.at < since
        ? 'fasteners'
        : place.family === 'rod' && trial.rod !== place.rod
          ? 'rod'
          : isSwappedSince(job.assembly, [housingName(place)], ['cap'], trial.at)
            ? 'cap'
            : null,
    isSwapped:
      isSwappedSince(job.assembly, [place.id], ['upper', 'lower'], trial.at) ||
      (chosen !== undefined && (chosen.upper.shell !== trial.upper.shell || chosen.lower.shell !== trial.lower.shell)),
  };
}

/** Whether a trial tells how assembly differs from the sum of its parts: read, still true, and as predicted or believed all the same. */
export function isTelling(tried: StationTrial | null): tried is StationTrial & { readonly difference: Nanometres } {
  if (!tried || tried.difference === null || tried.isVoid !== null) return false;
  return tried.isAsPredicted || tried.trial.isBelieved;
}

/** How an assembly with one series of shells differs from the sum of its parts at one station. */
export interface StationOffset {
  readonly series: string;
  readonly offset: Nanometres;
  /** Standard uncertainty of the offset, nm. */
  readonly u: number;
  /** The stations whose trials it comes from. */
  readonly stations: readonly string[];
  readonly isSpread: boolean;
  /** Whether the station itself was tried, rather than others of its family. */
  readonly isOwn: boolean;
}

/** A mean of trials is told to a tenth of a micrometre, or of a tenth. */
const FINEST = { mm: 100, in: 254 } as const;

/** Whether both halves of a trial are of one series, which its difference then belongs to. */
function seriesOf({ upper, lower }: Trial): string | null {
  return upper.series === lower.series ? upper.series : null;
}

/**
 * What trials say of each station of one family: its own trial of itself; where the fitter tries one and applies it, those of the others for
 * the rest. One entry a series.
 *
 * @param tried by station, all of one family
 * @param keepsOwn whether a station will be put together from the same parts: a pin whose rod may be another is not
 */
export function offsetsOf(
  { trialSchool, unit }: Pick<JobDocument, 'trialSchool' | 'unit'>,
  tried: ReadonlyMap<string, StationTrial | null>,
  keepsOwn: (station: string) => boolean = () => true,
): ReadonlyMap<string, readonly StationOffset[]> {
  const telling = [...tried].flatMap(([station, one]) => {
    const series = one && seriesOf(one.trial);
    return isTelling(one) && series !== null ? [{ station, series, difference: one.difference, u: one.u }] : [];
  });
  const shared =
    trialSchool !== 'one'
      ? []
      : [...new Set(telling.map(({ series }) => series))].flatMap((series): StationOffset[] => {
          const found = assemblyOffset(
            telling.filter((one) => one.series === series),
            FINEST[unit],
          );
          return found ? [{ ...found, series, isOwn: false }] : [];
        });
  return new Map(
    [...tried.keys()].map((station) => {
      const own = telling.flatMap(({ station: at, series, difference, u }): StationOffset[] =>
        at === station && keepsOwn(station)
          ? [{ series, offset: difference, u, stations: [station], isSpread: false, isOwn: true }]
          : [],
      );
      return [station, [...own, ...shared.filter(({ series }) => own.every((one) => one.series !== series))]];
    }),
  );
}
