import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { isInBand, NOT_IN_BAND, sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { halfFields } from './half.js';

/** One kind of half that an engine may take: what it is, how many there are, and whose. */
export const jobShellSchema = halfFields
  .extend({
    stock: z.int('stock is a whole number of shells').min(0, 'stock cannot be below zero').max(9999).nullable(),
    /** The kind of half in the workshop's drawer that it is; null for halves of this engine's own, which `stock` counts. */
    line: z.uuid().toLowerCase().nullable(),
    /** Where it is counted with the wall that its grade has in this workshop's engines: of how many, and what the grade says. */
    seen: z
      .strictObject({
        engines: z.int().min(2),
        was: z.strictObject({ wall: sizeNmSchema, band: sizeBandSchema }),
        by: personSchema,
        at: momentSchema,
      })
      .optional(),
  })
  .refine(isInBand, NOT_IN_BAND);
export type JobShell = z.infer<typeof jobShellSchema>;
