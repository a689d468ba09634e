import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { NEEDLES } from '../measure/parseLength.js';
import { FASTENER_KINDS } from '../torque/fasteners.js';

/**
 * How a bore gauge was zeroed when the clearance of a station was read with its shells in: on the journal (what it shows is the clearance),
 * on a setting size (that and what it shows is the bore of the shells), or in the bore (a micrometer brought to zero says its size).
 */
export const GAUGE_MODES = ['journal', 'setting', 'bore'] as const;
export type GaugeMode = (typeof GAUGE_MODES)[number];

const celsiusSchema = z.number().min(-60).max(300).nullable();

/** One reading with the shells in, in the bolt direction. Its length is the clearance where the gauge was zeroed on the journal, else the bore of the shells. */
export const trialReadingSchema = typedLengthSchema.extend({
  mode: z.enum(GAUGE_MODES),
  setting: sizeNmSchema.nullable().describe('Size the gauge was zeroed on, where it was a setting size.'),
  needle: z.enum(NEEDLES).nullable().describe('What a deviation with a + meant; null: nobody had said.'),
  confirmed: z
    .boolean()
    .optional()
    .describe('True if it was asked about and is right: a suspect reading counts only then.'),
  instrumentId: z
    .string()
    .max(60)
    .optional()
    .describe('The gauge of the workshop that it was read with; left out: the engine’s own.'),
  celsius: celsiusSchema.optional().describe('Temperature of the parts, °C; left out: that of the trial.'),
  gaugeCelsius: celsiusSchema.optional().describe('Temperature of the gauge, °C; left out: that of the trial.'),
});
export type TrialReading = z.output<typeof trialReadingSchema>;

/** A half as it was in the trial: what changes in the drawer later does not rewrite it. */
const triedHalfSchema = z.strictObject({
  shell: z.string(),
  label: z.string(),
  series: z.string(),
  wall: sizeNmSchema,
});

/** What a trial was made of, beside its halves: what changes of it later does not rewrite what was measured. */
const madeOfSchema = z.strictObject({
  bore: sizeNmSchema.nullable().describe('Housing bore as it was known; null: not read.'),
  journal: sizeNmSchema.nullable().describe('Journal as it was known; null: not read.'),
  fasteners: z.strictObject({
    kind: z.enum(FASTENER_KINDS),
    name: z.string().max(60),
    lubricant: z.string().max(60),
    torque: z.string().max(60),
  }),
  celsius: celsiusSchema.describe('Temperature of the parts, °C; null: not taken.'),
  gaugeCelsius: celsiusSchema,
});

const trialFields = {
  upper: triedHalfSchema,
  lower: triedHalfSchema,
  /** Number of the rod that was on a pin; null at a main. */
  rod: z.int().min(1).nullable(),
  /** Left out by trials from before it was kept. */
  madeOf: madeOfSchema.optional(),
  readings: z.record(z.string().min(1).max(60), trialReadingSchema),
  /** True if the fitter has looked, and believes what was measured though it is not as predicted. */
  isBelieved: z.boolean(),
  at: momentSchema,
  by: personSchema,
};

/** A station assembled, torqued and read before the rest. */
export const trialSchema = z.strictObject({
  ...trialFields,
  /** Trials of the same station with other parts, or assembled before this one: what they say of the assembly stays. */
  earlier: z.array(z.strictObject(trialFields)).max(20).optional(),
});
export type Trial = z.output<typeof trialSchema>;

/**
 * How far a job goes before it believes its figures: every station measured with its shells in; one tried and its difference applied to
 * the others; figures by marks alone; or put together and turned by hand.
 */
export const TRIAL_SCHOOLS = ['every', 'one', 'codes', 'turns'] as const;
export type TrialSchool = (typeof TRIAL_SCHOOLS)[number];
