import { REFERENCE_C } from '../clearance/temperature.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import {
  driftCorrected,
  type InstrumentKey,
  type InstrumentThen,
  instrumentAt,
  instrumentInUse,
  knownInstrument,
} from '../reading/readWith.js';
import type { StationJob } from './stationJob.js';
import { trialAt20, trialPerDegree, type WarmParts } from './trialAt20.js';
import type { Trial, TrialReading } from './trialSchema.js';

/** What a reading with the shells in comes to, step by step. */
export interface TrialSteps {
  /** The gauge that it was read with. */
  readonly gauge: InstrumentKey;
  /** What the gauge was set on, where that is an instrument: the micrometer that was brought to it. */
  readonly setOn: InstrumentKey | null;
  /** The instrument whose error it has, by the calibration and the zero checks of then. */
  readonly instrument: InstrumentThen;
  /** What that instrument showed too much, and had drifted by where that is corrected, nm. */
  readonly error: Nanometres;
  readonly drift: Nanometres;
  /** What was added to tell it at 20 °C, nm; 0 where no temperature was taken. */
  readonly toReference: Nanometres;
  /** Temperature of the parts that it was told at 20 °C by; null where it was not. */
  readonly celsius: number | null;
  /** What it moves by, nm a degree of the parts and of the gauge; null where no temperature was taken. */
  readonly perDegree: { readonly parts: number; readonly gauge: number } | null;
  /** What counts: the clearance, or the bore of the shells. */
  readonly counts: Nanometres;
}

/** The bore gauge that a reading with the shells in was taken with: the one that it names, else the one in use now. */
export function trialGauge(job: StationJob, { instrumentId }: Pick<TrialReading, 'instrumentId'>): InstrumentKey {
  if (instrumentId !== undefined && knownInstrument(job, instrumentId) !== null) return instrumentId;
  return instrumentInUse(job, 'trials');
}

/** What a gauge was asked for: zeroed on the journal its travel is the clearance; in the bore it has none. */
function travelOf({ nm, mode, setting }: TrialReading): Nanometres | null {
  if (nm === null || mode === 'bore') return null;
  if (mode === 'journal') return nm;
  return setting === null ? null : nanometres(nm - setting);
}

/**
 * What a reading with the shells in comes to: less the error of its gauge by the calibration of then, or, where the gauge was zeroed in the bore, of
 * the micrometer that was brought to it; less drift where the fitter says so; at 20 °C where temperatures were taken.
 *
 * @param parts what the station is made of; null where that is not known
 * @returns null for a reading that is no length
 */
export function trialSteps(
  job: StationJob,
  family: Family,
  reading: TrialReading,
  { madeOf }: Pick<Trial, 'madeOf'>,
  parts: WarmParts | null,
): TrialSteps | null {
  const { nm, mode, at } = reading;
  if (nm === null) return null;
  const gauge = trialGauge(job, reading);
  const setOn = mode === 'bore' ? instrumentInUse(job, featureOf(family, 'journal')) : null;
  const instrument = instrumentAt(job, setOn ?? gauge, { size: nm, travel: travelOf(reading), at });
  const error = instrument.error?.kind === 'known' ? instrument.error.error : nanometres(0);
  const drift = nanometres(driftCorrected(instrument, reading));
  const corrected = nanometres(nm - error - drift);
  const warmth = {
    celsius: reading.celsius !== undefined ? reading.celsius : (madeOf?.celsius ?? null),
    gaugeCelsius: (reading.gaugeCelsius !== undefined ? reading.gaugeCelsius : madeOf?.gaugeCelsius) ?? REFERENCE_C,
  };
  const counts = trialAt20(corrected, mode, parts, warmth, job.warm.steel);
  const isWarm = warmth.celsius !== null && parts !== null;
  return {
    gauge,
    setOn,
    instrument,
    error,
    drift,
    toReference: nanometres(counts - corrected),
    celsius: isWarm ? warmth.celsius : null,
    perDegree: isWarm ? trialPerDegree(corrected, mode, parts, job.warm.steel) : null,
    counts,
  };
}
