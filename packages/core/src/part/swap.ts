import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';

/** Parts of two stations that changed places: what was read and checked there before holds no more. */
export const swapSchema = z
  .strictObject({
    part: z.enum(['cap', 'upper', 'lower', 'rod']),
    one: z.string().min(1).max(10).describe('A station.'),
    other: z.string().min(1).max(10).describe('The other station.'),
    reason: z.string().trim().max(500, 'at most 500 characters').min(1, 'enter the reason'),
    by: personSchema,
    at: momentSchema,
  })
  .refine(({ one, other }) => one !== other, { path: ['other'], error: 'two different stations' });
export type Swap = z.output<typeof swapSchema>;

/** The swaps of an engine. */
export const swapsSchema = z.record(z.string().min(1).max(60), swapSchema).describe('By id.');
export type Swaps = z.output<typeof swapsSchema>;
