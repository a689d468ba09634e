import { z } from 'zod';
import { RUN_UNITS } from '../build/buildPart.js';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { PRESSURE_UNITS } from './pressure.js';

const wordsSchema = z.string().trim().max(500, 'at most 500 characters');
const stamp = { by: personSchema, at: momentSchema };
const runSchema = z.number().min(0).max(1e7);
const pressureValue = z.number().min(0).max(100_000);
const rpmSchema = z.number().positive().max(50_000);

/** When the oil pressure is read: cold, hot at idle, hot at a speed. */
export const PRESSURE_MOMENTS = ['cold', 'idle', 'speed'] as const;
export type PressureMoment = (typeof PRESSURE_MOMENTS)[number];

/** What is looked at when an engine is started for the first time. */
export const START_CHECKS = ['oil', 'primed', 'pressure', 'leaks', 'noise', 'level'] as const;
export type StartCheck = (typeof START_CHECKS)[number];

const startCheckSchema = z.strictObject({
  state: z.enum(['good', 'found']),
  words: wordsSchema.describe('What was found; empty: nothing.'),
  ...stamp,
});
export type StartCheckMade = z.output<typeof startCheckSchema>;

const pressureReadSchema = z.strictObject({
  value: pressureValue,
  unit: z.enum(PRESSURE_UNITS),
  rpm: rpmSchema.nullable().describe('Speed of the engine, 1/min; null: not noted.'),
});
export type PressureRead = z.output<typeof pressureReadSchema>;

const pressureLimitSchema = z
  .strictObject({
    least: pressureValue.nullable(),
    most: pressureValue.nullable(),
    unit: z.enum(PRESSURE_UNITS),
    source: z.string().trim().min(1, 'enter the source').max(200),
  })
  .refine(({ least, most }) => least !== null || most !== null, 'enter a minimum, a maximum, or both')
  .refine(({ least, most }) => least === null || most === null || least <= most, {
    path: ['most'],
    error: 'the maximum is below the minimum; swap them',
  });
export type PressureLimit = z.output<typeof pressureLimitSchema>;

/** What was read on one day after the build. */
const runEntrySchema = z.strictObject({
  on: daySchema,
  run: runSchema.nullable().describe('What the engine had run since the build; null: not noted.'),
  pressures: z.partialRecord(z.enum(PRESSURE_MOMENTS), pressureReadSchema),
  celsius: z.number().min(-60).max(250).nullable().describe('Temperature of the hot oil, °C; null: not noted.'),
  endPlay: typedLengthSchema.nullable(),
  words: wordsSchema,
  ...stamp,
});
export type RunEntry = z.output<typeof runEntrySchema>;

/** Re-check after the build, on a day, after a run, or whichever comes first. */
const recheckSchema = z
  .strictObject({
    what: z.string().trim().min(1, 'enter the task').max(120),
    on: daySchema.nullable(),
    run: runSchema.nullable(),
    done: z.strictObject({ words: wordsSchema, ...stamp }).nullable(),
    ...stamp,
  })
  .refine(({ on, run }) => on !== null || run !== null, 'enter a day, a run, or both');
export type Recheck = z.output<typeof recheckSchema>;

const idSchema = z.uuid().toLowerCase();

/** An engine after its build: the first start, running in, oil pressures, and what is looked at again. */
export const runningPart = documentPart({
  members: {
    running: z.strictObject({
      unit: z.enum(RUN_UNITS).describe('Unit of what the engine has run.'),
      start: z.partialRecord(z.enum(START_CHECKS), startCheckSchema),
      limits: z.partialRecord(z.enum(PRESSURE_MOMENTS), pressureLimitSchema),
      entries: z.record(idSchema, runEntrySchema),
      rechecks: z.record(idSchema, recheckSchema),
    }),
  },
  since: 8,
  blank: () => ({ running: { unit: 'h', start: {}, limits: {}, entries: {}, rechecks: {} } }),
});
export type RunningMembers = PartValues<typeof runningPart>;
export type Running = RunningMembers['running'];
