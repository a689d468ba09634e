import { USUAL_CELSIUS_U } from '../clearance/temperature.js';
import { type Budget, type Contribution, sumBudget } from '../measure/budget.js';
import type { EffectiveSize, MeasuredSize, ReadBy } from '../measure/effectiveSize.js';
import { readingUncertainty } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { evenly } from '../measure/uncertainty.js';
import { type InstrumentUse, wordsOfUse } from '../reading/instrumentUses.js';
import {
  type InstrumentKey,
  type InstrumentsJob,
  instrumentByKey,
  instrumentInUse,
  instrumentWords,
} from '../reading/readWith.js';

function contribution(key: string, words: string, u: number, shape: Contribution['shape'] = 'normal'): Contribution {
  return { key, words, u, shape, sensitivity: 1 };
}

/** The setting of an instrument for sizes: the same error in all that was read on it. */
export function settingOf(job: InstrumentsJob, instrument: InstrumentKey): Budget {
  const { setting } = instrumentByKey(job, instrument);
  return [contribution(`setting:${instrument}`, `${instrumentWords(job, instrument)}, setting`, setting)];
}

/**
 * The setting of the bore gauge for trials, for which it is set anew: one for all of them; or, zeroed on a journal, one a station.
 *
 * @param gauge the bore gauge
 * @param station on whose journal it was zeroed; null: on a setting size
 */
export function trialSetting(job: InstrumentsJob, gauge: InstrumentKey, station: string | null): Budget {
  const { setting } = instrumentByKey(job, gauge);
  const words = instrumentWords(job, gauge);
  return station === null
    ? [contribution('setting:trials', `${words}, setting for trials`, setting)]
    : [contribution(`setting:journal ${station}`, `${words}, zeroed on the journal of ${station}`, setting)];
}

/** The variance of one reading with an instrument, apart from its setting: repeats, the operator, the resolution; nm². */
function readingVariance(job: InstrumentsJob, instrument: InstrumentKey): number {
  return readingUncertainty({ ...instrumentByKey(job, instrument), setting: nanometres(0) }, 1) ** 2;
}

/**
 * The mean of some readings, apart from the settings of their instruments: repeats, the operator, the resolution.
 *
 * @param key by which the readings are known
 * @param of what was read, in words: `bore M1`
 * @param by how many were taken with which instrument
 */
export function readingsOf(
  job: InstrumentsJob,
  { key, of }: { readonly key: string; readonly of: string },
  by: readonly Pick<ReadBy, 'instrument' | 'count'>[],
): Budget {
  const count = by.reduce((sum, one) => sum + one.count, 0);
  const squares = by.reduce((sum, one) => sum + one.count * readingVariance(job, one.instrument), 0);
  const words = `${count === 1 ? 'reading' : `mean of ${count} readings`}, ${of}`;
  return [contribution(`readings:${key}`, words, Math.sqrt(squares) / count)];
}

/** What is the same in all that was read with an instrument: its setting, or that of what it was set on, and what the calibration is known to. */
function sharedOf(job: InstrumentsJob, { instrument, setOn = instrument, scale }: ReadBy): Budget {
  return [...settingOf(job, setOn), ...scaleOf(job, setOn, scale)];
}

/** What the calibration of an instrument is known to, which all that was corrected by it shares; nothing where none was applied. */
export function scaleOf(job: InstrumentsJob, instrument: InstrumentKey, scale: number): Budget {
  return scale > 0
    ? [contribution(`scale:${instrument}`, `${instrumentWords(job, instrument)}, calibration`, scale)]
    : [];
}

/** Temperatures that something was told at 20 °C by: in °C, with the length that a degree makes as sensitivity. */
function celsiusOf({ warm }: InstrumentsJob, key: string, words: string, perDegree: number): Budget {
  return [{ ...contribution(key, words, warm.u ?? USUAL_CELSIUS_U), in: '°C', sensitivity: perDegree }];
}

/**
 * What is not known of the temperatures that readings with the shells in were told at 20 °C by: that of the parts, and that of the instruments.
 *
 * @param perDegree nm that what counts moves by, a degree of each
 */
export function trialWarmth(
  job: InstrumentsJob,
  perDegree: { readonly parts: number; readonly gauge: number },
): Budget {
  return [
    ...celsiusOf(job, 'celsius:trials', 'temperature of the parts with the shells in', perDegree.parts),
    ...celsiusOf(job, 'celsius:instruments', 'temperature of the instruments', perDegree.gauge),
  ];
}

/**
 * What is not known of the temperatures that a size was told at 20 °C by: that of the parts of a feature, and that of the instruments, each the same
 * error in all that was corrected by it. In °C, with the length that a degree makes as sensitivity.
 */
function warmthOf(job: InstrumentsJob, use: InstrumentUse, { alpha }: ReadBy, size: number): Budget {
  if (alpha === undefined) return [];
  const grows = (coefficient: number) => size * coefficient * 1e-6;
  return [
    ...celsiusOf(job, `celsius:${use}`, `temperature of the ${wordsOfUse(use)}`, -grows(alpha)),
    ...celsiusOf(job, 'celsius:instruments', 'temperature of the instruments', grows(job.warm.steel)),
  ];
}

/** What a size was read with; where it does not say, with what the feature is read with now. */
function readByOf(job: InstrumentsJob, use: InstrumentUse, { by, count }: MeasuredSize): readonly ReadBy[] {
  return by ?? [{ instrument: instrumentInUse(job, use), count, scale: 0 }];
}

/**
 * A size: as it was read; or evenly over the band of its mark.
 *
 * @param use what the size is of
 * @param of the part, `bore M1`: its readings are no other's
 */
export function sizeBudget(job: InstrumentsJob, use: InstrumentUse, of: string, size: EffectiveSize): Budget {
  if (size.kind === 'marked')
    return [contribution(`band:${of}`, `band of its mark, ${of}`, evenly((size.largest - size.smallest) / 2), 'even')];
  const by = readByOf(job, use, size);
  return sumBudget([
    ...by.map((one) => [sharedOf(job, one), one.count / size.count] as const),
    ...by.map((one) => [warmthOf(job, use, one, size.nominal), one.count / size.count] as const),
    [readingsOf(job, { key: of, of }, by), 1],
  ]);
}

/** A half where it stands: of which kind it is, and whether its wall was measured. */
export interface PlacedHalf {
  /** Its kind: id of the job's shell. */
  readonly shell: string;
  /** What it is called. */
  readonly label: string;
  readonly band?: SizeBand | undefined;
}

/**
 * The wall of a half: measured once for its kind, which two halves of the kind have in common; or evenly over the band of its grade, each half
 * for itself.
 *
 * @param at where it stands, `M1 upper`: another half of the grade is another wall
 */
export function wallBudget(job: InstrumentsJob, { shell, label, band }: PlacedHalf, at: string): Budget {
  if (band)
    return [
      contribution(`band:${shell}:${at}`, `band of its grade, ${at}`, evenly((band.high - band.low) / 2), 'even'),
    ];
  const instrument = instrumentInUse(job, 'walls');
  return sumBudget([
    [settingOf(job, instrument), 1],
    [readingsOf(job, { key: `wall ${shell}`, of: `wall of ${label}` }, [{ instrument, count: 1 }]), 1],
  ]);
}

/** Two halves at a station, together. */
export function wallsBudget(
  job: InstrumentsJob,
  station: string,
  { upper, lower }: { readonly upper: PlacedHalf; readonly lower: PlacedHalf },
): Budget {
  return sumBudget([
    [wallBudget(job, upper, `${station} upper`), 1],
    [wallBudget(job, lower, `${station} lower`), 1],
  ]);
}
