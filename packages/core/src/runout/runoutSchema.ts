import { z } from 'zod';
import { typedLengthSchema } from '../document/typedLength.js';

/** Readings of a dial round one turn, by the angle in whole degrees. */
const turnSchema = z.record(z.string().regex(/^(?:\d|[1-9]\d|[12]\d\d|3[0-5]\d)$/u), typedLengthSchema);
export type Turn = z.output<typeof turnSchema>;

/** The runout of a shaft that is turned on its outer mains. */
export const runoutSchema = z.strictObject({
  /** How many readings a turn, evenly. */
  steps: z.union([z.literal(4), z.literal(6), z.literal(8), z.literal(12)]),
  /** By main: `M2`. */
  mains: z.record(z.string().min(1).max(10), turnSchema),
  /** At the flange, or at the flywheel; from its start tooth on. */
  flange: turnSchema,
  startTooth: z
    .string()
    .trim()
    .max(40, 'at most 40 characters')
    .describe('Tooth or mark where the turn starts; may be empty.'),
});
export type Runout = z.output<typeof runoutSchema>;

/** Nothing read; eight readings a turn. */
export const BLANK_RUNOUT: Runout = { steps: 8, mains: {}, flange: {}, startTooth: '' };
