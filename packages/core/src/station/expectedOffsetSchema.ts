import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';

/**
 * What other engines let expect that assembly adds, taken over by the fitter: with the engines that it came from, as it was then. It holds while the
 * fasteners are those that it was found with, and until a trial of this engine says better.
 */
export const expectedOffsetSchema = z.strictObject({
  offset: nanometresSchema.describe('Random-effects mean over engines.'),
  u: z.number().positive().max(1e9).describe('Standard uncertainty of the next engine, nm.'),
  engines: z.int().min(1).describe('How many engines it came from.'),
  type: z.string().max(80).describe('Their engine type.'),
  fasteners: z.string().max(300).describe('Their fasteners, in words.'),
  by: personSchema,
  at: momentSchema,
});
export type ExpectedOffset = z.output<typeof expectedOffsetSchema>;
