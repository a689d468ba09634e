import { type Budget, type Contribution, sumBudget } from '../measure/budget.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { INSTRUMENT_WORDS, type Instrument, type InstrumentRole, readingUncertainty } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { evenly } from '../measure/uncertainty.js';

export type Instruments = Readonly<Record<InstrumentRole, Instrument>>;

function contribution(key: string, words: string, u: number, shape: Contribution['shape'] = 'normal'): Contribution {
  return { key, words, u, shape, sensitivity: 1 };
}

/** The setting of an instrument for sizes: the same error in all that was read on it. */
export function settingOf(instruments: Instruments, role: InstrumentRole): Budget {
  return [contribution(`setting:${role}`, `${INSTRUMENT_WORDS[role]}, setting`, instruments[role].setting)];
}

/**
 * The setting of the bore gauge for trials, for which it is set anew: one for all of them; or, zeroed on a journal, one a station.
 *
 * @param station on whose journal it was zeroed; null: on a setting size
 */
export function trialSetting({ boreGauge: { setting } }: Instruments, station: string | null): Budget {
  return station === null
    ? [contribution('setting:trials', 'bore gauge, setting for trials', setting)]
    : [contribution(`setting:journal ${station}`, `bore gauge, zeroed on the journal of ${station}`, setting)];
}

/**
 * The mean of some readings with an instrument, apart from its setting: repeats, the operator, the resolution.
 *
 * @param key by which the readings are known
 * @param of what was read, in words: `bore M1`
 */
export function readingsOf(
  instruments: Instruments,
  role: InstrumentRole,
  { key, of }: { readonly key: string; readonly of: string },
  count: number,
): Budget {
  const u = readingUncertainty({ ...instruments[role], setting: nanometres(0) }, count);
  return [contribution(`readings:${key}`, `${count === 1 ? 'reading' : `mean of ${count} readings`}, ${of}`, u)];
}

/**
 * A size: as it was read; or evenly over the band of its mark.
 *
 * @param of the part, `bore M1`: its readings are no other's
 */
export function sizeBudget(instruments: Instruments, role: InstrumentRole, of: string, size: EffectiveSize): Budget {
  if (size.kind === 'marked')
    return [contribution(`band:${of}`, `band of its mark, ${of}`, evenly((size.largest - size.smallest) / 2), 'even')];
  return sumBudget([
    [settingOf(instruments, role), 1],
    [readingsOf(instruments, role, { key: of, of }, size.count), 1],
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
export function wallBudget(instruments: Instruments, { shell, label, band }: PlacedHalf, at: string): Budget {
  if (band)
    return [
      contribution(`band:${shell}:${at}`, `band of its grade, ${at}`, evenly((band.high - band.low) / 2), 'even'),
    ];
  return sumBudget([
    [settingOf(instruments, 'ballMicrometer'), 1],
    [readingsOf(instruments, 'ballMicrometer', { key: `wall ${shell}`, of: `wall of ${label}` }, 1), 1],
  ]);
}

/** Two halves at a station, together. */
export function wallsBudget(
  instruments: Instruments,
  station: string,
  { upper, lower }: { readonly upper: PlacedHalf; readonly lower: PlacedHalf },
): Budget {
  return sumBudget([
    [wallBudget(instruments, upper, `${station} upper`), 1],
    [wallBudget(instruments, lower, `${station} lower`), 1],
  ]);
}
