import { z } from 'zod';
import { notNegativeNmSchema, sizeNmSchema } from './lengthSchema.js';
import { daySchema } from './moment.js';
import { type Nanometres, nanometres } from './nanometres.js';
import { NEEDLES } from './parseLength.js';
import { combinedUncertainty, evenly } from './uncertainty.js';
import type { Unit } from './unit.js';

/** What a fitter reads sizes with: a bore gauge for bores, an outside micrometer for journals, a ball micrometer for walls. */
export const INSTRUMENT_ROLES = ['boreGauge', 'micrometer', 'ballMicrometer'] as const;
export type InstrumentRole = (typeof INSTRUMENT_ROLES)[number];

/** What an instrument is called in a sentence. */
export const INSTRUMENT_WORDS: Readonly<Record<InstrumentRole, string>> = {
  boreGauge: 'bore gauge',
  micrometer: 'micrometer',
  ballMicrometer: 'ball micrometer',
};

/** An instrument, and how far it may be off. All standard uncertainties are the fitter's to change. */
export const instrumentSchema = z.strictObject({
  name: z.string().trim().max(60, 'at most 60 characters').describe('Name or number; may be empty.'),
  needle: z
    .enum(NEEDLES)
    .nullable()
    .describe(
      'What a deviation with a + means; on most dial bore gauges clockwise is smaller. Null: nobody has said yet.',
    ),
  resolution: notNegativeNmSchema.describe('Resolution.'),
  setting: notNegativeNmSchema.describe(
    'Standard uncertainty of its setting: the master, or the micrometer it was zeroed on.',
  ),
  repeatability: notNegativeNmSchema.describe('Standard uncertainty of one reading for its own repeats.'),
  operator: notNegativeNmSchema.describe('Standard uncertainty of one reading by the operator.'),
  calibratedOn: daySchema.nullable().describe('Date of the last calibration; null: unknown.'),
  calibrateAfterMonths: z
    .int()
    .min(1)
    .max(120)
    .nullable()
    .describe('Months to the next calibration; null: no reminder.'),
  holder: z.string().trim().max(60, 'at most 60 characters').describe('Holder; may be empty.'),
  range: z
    .strictObject({ low: notNegativeNmSchema, high: sizeNmSchema })
    .refine(({ low, high }) => low < high, 'the smaller end is below the larger one')
    .nullable()
    .describe('Range of sizes it reads; null: not given.'),
  ball: sizeNmSchema.nullable().describe('Ball of a ball micrometer: it reads wall plus ball.'),
});
export type Instrument = z.output<typeof instrumentSchema>;

/**
 * Instruments in good order, to start from. Common practice: 0.001 mm or 0.0001 in of resolution, a micrometre or half a tenth for each of
 * setting, repeats and operator; the setting of a micrometer that was checked on its standard half of that.
 */
export function usualInstrument(role: InstrumentRole, unit: Unit): Instrument {
  const one = nanometres(unit === 'mm' ? 1_000 : 1_270);
  return {
    name: '',
    // Which way the needle of a bore gauge goes is asked when it is first used.
    needle: role === 'boreGauge' ? null : 'bigger',
    resolution: nanometres(unit === 'mm' ? 1_000 : 2_540),
    setting: role === 'boreGauge' ? one : nanometres(one / 2),
    repeatability: one,
    operator: role === 'ballMicrometer' ? nanometres(one / 2) : one,
    calibratedOn: null,
    calibrateAfterMonths: null,
    holder: '',
    range: null,
    ball: null,
  };
}

/**
 * How far a size lies outside of what an instrument reads, nm: below zero under its range, above zero over it, zero inside or where the
 * range is not known. A micrometer of 2 to 3 in cannot have read 1.9 in: the frame is another one, or the figure.
 *
 * @example outsideRange({ range: { low: 0, high: 25_000_000 } }, 25_400_000) // 400000
 */
export function outsideRange({ range }: Pick<Instrument, 'range'>, size: Nanometres): Nanometres {
  if (range === null) return nanometres(0);
  return nanometres(size < range.low ? size - range.low : Math.max(0, size - range.high));
}

/** An instrument of each role in good order. */
export function usualInstruments(unit: Unit): Record<InstrumentRole, Instrument> {
  const of = (role: InstrumentRole) => usualInstrument(role, unit);
  return { boreGauge: of('boreGauge'), micrometer: of('micrometer'), ballMicrometer: of('ballMicrometer') };
}

/**
 * What the mean of some readings with one instrument is known to, nm: `u² = setting² + (repeatability² + operator² + (resolution/2)²/3) / n`.
 * The setting is the same in all of them and does not average out (JCGM 100:2008, 4.2, 4.3.7 and 5.1.2; cited from memory).
 *
 * @param count how many readings, one at least
 * @example Math.round(readingUncertainty({ resolution: 0, setting: 3000, repeatability: 4000, operator: 0 }, 1)) // 5000
 */
export function readingUncertainty(
  {
    resolution,
    setting,
    repeatability,
    operator,
  }: Pick<Instrument, 'resolution' | 'setting' | 'repeatability' | 'operator'>,
  count: number,
): number {
  const share = 1 / Math.sqrt(count);
  return combinedUncertainty([
    { u: setting },
    { u: repeatability, sensitivity: share },
    { u: operator, sensitivity: share },
    { u: evenly(resolution / 2), sensitivity: share },
  ]).u;
}

/** The day on which an instrument is due for calibration, as 2026-11-25; null where nobody asked to be reminded. */
export function calibrationDue({
  calibratedOn,
  calibrateAfterMonths,
}: Pick<Instrument, 'calibratedOn' | 'calibrateAfterMonths'>): string | null {
  if (calibratedOn === null || calibrateAfterMonths === null) return null;
  const [year = 0, month = 1, day = 1] = calibratedOn.split('-').map(Number);
  const months = year * 12 + (month - 1) + calibrateAfterMonths;
  const last = new Date(Date.UTC(Math.floor(months / 12), (months % 12) + 1, 0)).getUTCDate();
  const two = (value: number) => String(value).padStart(2, '0');
  // The 31st of a month becomes the last day of a shorter one.
  return `${Math.floor(months / 12)}-${two((months % 12) + 1)}-${two(Math.min(day, last))}`;
}
