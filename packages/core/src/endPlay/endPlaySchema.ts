import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { shimPlaceSchema } from '../fit/format/shimPlace.js';
import { nanometresSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import type { Unit } from '../measure/unit.js';
import { settingSchemas, usualSettings } from '../stage/settingRow.js';
import { END_PLAY_SETTINGS } from './endPlaySettings.js';

/**
 * When a reading was taken: with other pieces than are in now (kept, but not used any more), without any shims (the gap), as it was
 * found, after the halves were lined up and the cap torqued again, and with the pieces in that were chosen.
 */
export const MOMENTS = ['past', 'without', 'found', 'seated', 'fitted'] as const;
export type Moment = (typeof MOMENTS)[number];

/** End-to-end movement of the shaft, as it was read. */
export const endPlayReadingSchema = typedLengthSchema.extend({
  moment: z.enum(MOMENTS),
  angle: z.union([z.literal(0), z.literal(180)]).describe('How far the shaft was turned, degrees.'),
});
export type EndPlayReading = z.output<typeof endPlayReadingSchema>;

/** Pieces as they were when a choice was accepted: what changes on the shelf later does not rewrite it. */
export const pieceChoiceSchema = z.strictObject({
  at: momentSchema,
  by: personSchema,
  chosen: z.array(
    z.strictObject({
      place: shimPlaceSchema,
      piece: z.string(),
      label: z.string(),
      thickness: sizeNmSchema,
      count: z.int().min(1).max(100),
    }),
  ),
  predicted: nanometresSchema.describe('What will be read afterwards.'),
  shift: nanometresSchema.describe('How far the shaft moves forward.'),
});
export type PieceChoice = z.output<typeof pieceChoiceSchema>;

/** The end play of one engine: what limits it, what was read, what was chosen. */
export const endPlaySchema = z.strictObject({
  ...settingSchemas(END_PLAY_SETTINGS),
  /** Thickness of what is fitted now, as measured. */
  fitted: z.strictObject({
    front: sizeNmSchema.nullable(),
    rear: sizeNmSchema.nullable(),
    width: sizeNmSchema.nullable(),
  }),
  walked: z.boolean().describe('True if the shaft was pushed to and fro first, to squeeze the oil out.'),
  readings: z.record(z.string().min(1).max(60), endPlayReadingSchema),
  choice: pieceChoiceSchema.nullable(),
});
export type EndPlay = z.output<typeof endPlaySchema>;

/** Nothing read, and the usual settings, each of which the fitter can change. */
export function blankEndPlay(unit: Unit): EndPlay {
  return {
    ...usualSettings(END_PLAY_SETTINGS, { unit }),
    fitted: { front: null, rear: null, width: null },
    walked: false,
    readings: {},
    choice: null,
  };
}
