import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';

/** A rod is an object of its own: it keeps its cap and its mark, and may go on any pin until the fitter keeps it on one. */
export const rodSchema = z.strictObject({
  mark: z.string().trim().max(20, 'at most 20 characters'),
  /** Pin it is kept on, 1 at the front; null while it may go anywhere. */
  pin: z.int().min(1).max(48).nullable(),
  /** Its bank, where the shaft has two rods on a pin; left out: that of the pin with its number. */
  bank: z.enum(['A', 'B']).optional(),
});

/** The rods of an engine, each with what is known of it beside its readings. */
export const rodsPart = documentPart({
  members: {
    /** By number; a rod that is left out has no mark and may go anywhere. */
    rods: z.record(z.string().regex(/^[1-9]\d?$/u), rodSchema),
  },
  since: 1,
  blank: () => ({ rods: {} }),
});
export type RodsMembers = PartValues<typeof rodsPart>;
