import { z } from 'zod';
import { isInBand, NOT_IN_BAND } from '../measure/lengthSchema.js';
import { halfFields } from './half.js';

/** One kind of half that an engine may take: what it is, how many there are, and whose. */
export const jobShellSchema = halfFields
  .extend({
    stock: z.int('stock is a whole number of shells').min(0, 'stock cannot be below zero').max(9999).nullable(),
    /** The kind of half in the workshop's drawer that it is; null for halves of this engine's own, which `stock` counts. */
    line: z.uuid().toLowerCase().nullable(),
  })
  .refine(isInBand, NOT_IN_BAND);
export type JobShell = z.infer<typeof jobShellSchema>;
