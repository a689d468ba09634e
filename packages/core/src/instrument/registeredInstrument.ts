import { z } from 'zod';
import { type Instrument, type InstrumentRole, usualInstrument } from '../measure/instrument.js';
import { notNegativeNmSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import { NEEDLES } from '../measure/parseLength.js';
import { type Unit, unitSchema } from '../measure/unit.js';
import { type Calibration, lastCalibration } from './calibration.js';
import { INSTRUMENT_KINDS, INSTRUMENT_STATES, type InstrumentKind, instrumentKind } from './instrumentKinds.js';

const words = z.string().trim().max(60, 'at most 60 characters');

/** Where the standard uncertainties of an instrument come from, until a study or a calibration says better. */
export const COMMON_PRACTICE = 'common practice, not measured here';

/** An instrument of the workshop, as it is kept. */
export const registeredInstrumentSchema = z.strictObject({
  number: words.min(1, 'enter the number on the instrument').describe('Its number in the workshop; no other has it.'),
  kind: z.enum(INSTRUMENT_KINDS),
  unit: unitSchema.describe('Scale unit.'),
  range: z
    .strictObject({ low: notNegativeNmSchema, high: sizeNmSchema })
    .refine(({ low, high }) => low < high, 'the smaller end is below the larger one')
    .nullable()
    .describe('Range of sizes it reads; null: not given.'),
  size: sizeNmSchema.nullable().describe('Size of a setting ring or gauge block; null for others.'),
  ball: sizeNmSchema.nullable().describe('Ball of a ball micrometer: it reads wall plus ball.'),
  resolution: notNegativeNmSchema.describe('Resolution.'),
  needle: z
    .enum(NEEDLES)
    .nullable()
    .describe(
      'What a deviation with a + means; null for what has no dial, or came from an engine where nobody had said.',
    ),
  setting: notNegativeNmSchema.describe('Standard uncertainty of its setting.'),
  repeatability: notNegativeNmSchema.describe('Standard uncertainty of one reading for its own repeats.'),
  operator: notNegativeNmSchema.describe('Standard uncertainty of one reading by the operator.'),
  basis: z
    .string()
    .trim()
    .min(1, 'say where the uncertainties come from')
    .max(200, 'at most 200 characters')
    .describe('Where the three uncertainties come from.'),
  drift: notNegativeNmSchema.describe('Two zero checks that differ by more make the readings between them suspect.'),
  calibrateAfterMonths: z.int().min(1).max(120).nullable().describe('Months between calibrations; null: no reminder.'),
  holder: words.describe('Kept by; may be empty.'),
  place: words.describe('Location; may be empty.'),
  state: z.enum(INSTRUMENT_STATES),
});
export type RegisteredInstrument = z.output<typeof registeredInstrumentSchema>;

/** An instrument as it is entered: the way of its needle, and the size of a master, are asked for and never assumed. */
export const instrumentDraftSchema = registeredInstrumentSchema.superRefine(({ kind, needle, size }, context) => {
  const { hasNeedle, isMaster, word } = instrumentKind(kind);
  if (hasNeedle && needle === null) {
    context.addIssue({ code: 'custom', path: ['needle'], message: `say which way the needle of the ${word} goes` });
  }
  if (isMaster && size === null) {
    context.addIssue({ code: 'custom', path: ['size'], message: `enter the size of the ${word}` });
  }
});

/** How far two zero checks of an instrument in good order differ at most, before readings are doubted: 0.002 mm or 0.0001 in; common practice. */
const USUAL_DRIFT: Readonly<Record<Unit, number>> = { mm: 2_000, in: 2_540 };

/** An instrument to be registered: with the uncertainties of its kind in good order, and the way of its needle left to be said. */
export function newInstrument(kind: InstrumentKind, unit: Unit): RegisteredInstrument {
  const [role = 'micrometer'] = instrumentKind(kind).reads;
  const { resolution, setting, repeatability, operator } = usualInstrument(role, unit);
  return {
    number: '',
    kind,
    unit,
    range: null,
    size: null,
    ball: null,
    resolution,
    needle: null,
    setting,
    repeatability,
    operator,
    basis: COMMON_PRACTICE,
    drift: nanometres(USUAL_DRIFT[unit]),
    calibrateAfterMonths: 12,
    holder: '',
    place: '',
    state: 'inUse',
  };
}

/** True if an instrument reads what is asked: bores, journals or walls. */
export function readsRole({ kind }: Pick<RegisteredInstrument, 'kind'>, role: InstrumentRole): boolean {
  return instrumentKind(kind).reads.includes(role);
}

/**
 * What an instrument is called: `bore gauge 3`.
 *
 * @example instrumentName({ kind: 'boreGauge', number: '3' }) // 'bore gauge 3'
 */
export function instrumentName({ kind, number }: Pick<RegisteredInstrument, 'kind' | 'number'>): string {
  return `${instrumentKind(kind).word} ${number}`.trim();
}

/** A registered instrument as an engine's own are told. What has no dial reads bigger with a +. */
export function asInstrument(one: RegisteredInstrument, calibrations: readonly Calibration[]): Instrument {
  return {
    name: one.number,
    needle: one.needle ?? (instrumentKind(one.kind).hasNeedle ? null : 'bigger'),
    resolution: one.resolution,
    setting: one.setting,
    repeatability: one.repeatability,
    operator: one.operator,
    calibratedOn: lastCalibration(calibrations)?.on ?? null,
    calibrateAfterMonths: one.calibrateAfterMonths,
    holder: one.holder,
    range: one.range,
    ball: one.ball,
  };
}
