import { z } from 'zod';
import { momentSchema } from '../measure/moment.js';
import { torqueSchema } from './fastener.js';

/** Whose fasteners hold: nobody said, the engine maker's, or others. */
export const FASTENER_KINDS = ['unknown', 'maker', 'other'] as const;

/** What holds the housings of a family: whatever is changed of it moves their bores. */
export const fastenersSchema = z.strictObject({
  kind: z.enum(FASTENER_KINDS).describe('The engine maker’s own, or others.'),
  name: z.string().trim().max(60, 'at most 60 characters'),
  lubricant: z.string().trim().max(60, 'at most 60 characters').describe('On threads and under the heads.'),
  torque: z.string().trim().max(60, 'at most 60 characters').describe('As it is written: 30 · 55 N·m, then 60°.'),
  /** Their maker's figures, each with its source, where they are others than the engine maker's or the sheet gives none. */
  figures: z.array(torqueSchema).max(8),
  /** Since when it is these; what was read before was read with others. Null: from the beginning. */
  since: momentSchema.nullable(),
});
export type Fasteners = z.output<typeof fastenersSchema>;

/** Fasteners of which nothing was said. */
export const UNKNOWN_FASTENERS: Fasteners = {
  kind: 'unknown',
  name: '',
  lubricant: '',
  torque: '',
  figures: [],
  since: null,
};
