import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { momentSchema } from '../measure/moment.js';

/** A pass that was ticked off. */
export const donePassSchema = z.strictObject({
  target: z.string().max(120).describe('Torque or angle it went to, in words; a later change asks for it again.'),
  by: personSchema,
  at: momentSchema,
});

/** What was tightened: passes by their keys, stretches by the ids of their bolts. */
export const tightenedSchema = z.strictObject({
  passes: z.record(z.string().min(1).max(60), donePassSchema),
  stretch: z.record(z.string().min(1).max(60), typedLengthSchema),
});
export type Tightened = z.output<typeof tightenedSchema>;

/** Nothing tightened yet. */
export const BLANK_TIGHTENED: Tightened = { passes: {}, stretch: {} };
