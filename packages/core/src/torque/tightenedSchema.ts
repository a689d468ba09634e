import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';

/** A pass that was ticked off. */
export const donePassSchema = z.strictObject({
  target: z.string().max(120).describe('Torque or angle it went to, in words; a later change asks for it again.'),
  by: personSchema,
  at: momentSchema,
});

/** A stretch as it was read. */
export const stretchSchema = z.strictObject({
  text: z.string().max(64, 'at most 64 characters').describe('As typed.'),
  unit: unitSchema.describe('Unit of a bare figure when it was typed.'),
  nm: nanometresSchema.nullable().describe('Null: the text is not a length.'),
  by: personSchema,
  at: momentSchema,
});

/** What was tightened: passes by their keys, stretches by their bolts. */
export const tightenedSchema = z.strictObject({
  passes: z.record(z.string().min(1).max(60), donePassSchema),
  stretch: z.record(z.string().min(1).max(60), stretchSchema),
});
export type Tightened = z.output<typeof tightenedSchema>;

/** Nothing tightened yet. */
export const BLANK_TIGHTENED: Tightened = { passes: {}, stretch: {} };
