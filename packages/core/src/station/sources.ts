import { type Budget, type Contribution, sumBudget } from '../measure/budget.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { type Instrument, type InstrumentRole, readingUncertainty } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { evenly } from '../measure/uncertainty.js';

export type Instruments = Readonly<Record<InstrumentRole, Instrument>>;

const ROLE_WORDS: Readonly<Record<InstrumentRole, string>> = {
  boreGauge: 'bore gauge',
  micrometer: 'micrometer',
  ballMicrometer: 'ball micrometer',
};

function contribution(key: string, words: string, u: number, shape: Contribution['shape'] = 'normal'): Contribution {
  return { key, words, u, shape, sensitivity: 1 };
}

/**
 * The setting of an instrument: the same error in all that was read on it.
 *
 * @param zeroedFor what it was set for: the sizes of parts; trials, for which a gauge is set anew; or one station, on whose journal it was zeroed
 */
export function settingOf(instruments: Instruments, role: InstrumentRole, zeroedFor = 'sizes'): Budget {
  const what = zeroedFor === 'sizes' ? '' : ` for ${zeroedFor}`;
  return [
    contribution(`setting:${role}:${zeroedFor}`, `${ROLE_WORDS[role]}, setting${what}`, instruments[role].setting),
  ];
}

/** The mean of some readings with an instrument, apart from its setting: repeats, the operator, the resolution. */
export function readingsOf(instruments: Instruments, role: InstrumentRole, of: string, count: number): Budget {
  const u = readingUncertainty({ ...instruments[role], setting: nanometres(0) }, count);
  return [contribution(`readings:${of}`, `${count === 1 ? 'reading' : `${count} readings`} of ${of}`, u)];
}

/**
 * A size: as it was read; or evenly over the band of its mark.
 *
 * @param of the part, `bore M1`: its readings are no other's
 */
export function sizeBudget(instruments: Instruments, role: InstrumentRole, of: string, size: EffectiveSize): Budget {
  if (size.kind === 'marked')
    return [
      contribution(`band:${of}`, `band of the mark of ${of}`, evenly((size.largest - size.smallest) / 2), 'even'),
    ];
  return sumBudget([
    [settingOf(instruments, role), 1],
    [readingsOf(instruments, role, of, size.count), 1],
  ]);
}

/** A half where it stands: of which kind it is, and whether its wall was measured. */
export interface PlacedHalf {
  /** Its kind: id of the job's shell. */
  readonly shell: string;
  readonly band?: SizeBand | undefined;
}

/**
 * The wall of a half: measured once for its kind, which two halves of the kind have in common; or evenly over the band of its grade, each half
 * for itself.
 *
 * @param at where it stands, `M1 upper`: another half of the grade is another wall
 */
export function wallBudget(instruments: Instruments, { shell, band }: PlacedHalf, at: string): Budget {
  if (band)
    return [
      contribution(`band:${shell}:${at}`, `band of the grade at ${at}`, evenly((band.high - band.low) / 2), 'even'),
    ];
  return sumBudget([
    [settingOf(instruments, 'ballMicrometer'), 1],
    [readingsOf(instruments, 'ballMicrometer', `wall ${shell}`, 1), 1],
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
