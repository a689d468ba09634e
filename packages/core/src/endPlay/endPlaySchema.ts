import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { THRUST_KINDS } from '../engineType/thrustKind.js';
import { shimPlaceSchema } from '../fit/format/shimPlace.js';
import { nanometresSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';

/**
 * When a reading was taken: with other pieces than are in now (kept, but not used any more), without any shims (the gap), as it was
 * found, after the halves were lined up and the cap torqued again, and with the pieces in that were chosen.
 */
export const MOMENTS = ['past', 'without', 'found', 'seated', 'fitted'] as const;
export type Moment = (typeof MOMENTS)[number];

const unsigned = nanometresSchema.refine((value) => value >= 0, 'cannot be below zero');

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
  kind: z.enum(THRUST_KINDS).nullable().describe('Null: as on the data sheet.'),
  halves: z.array(z.enum(['upper', 'lower'])).min(1),
  /** Thickness of what is fitted now, as measured. */
  fitted: z.strictObject({
    front: sizeNmSchema.nullable(),
    rear: sizeNmSchema.nullable(),
    width: sizeNmSchema.nullable(),
  }),
  coating: z.enum(['unknown', 'none', 'coated']).describe('True if the fitted faces are coated.'),
  aim: nanometresSchema.nullable().describe('Null: middle of the limits.'),
  settle: unsigned.describe('What the final torque squeezes out of a stack of rings.'),
  counts: z.array(z.int().min(0).max(12)).min(1).max(8).describe('Numbers of rings, best first.'),
  maxShift: unsigned.nullable().describe('Maximum shift of the shaft; null: any.'),
  alikeWithin: unsigned.describe('Maximum difference between two washers of a face.'),
  repeatWithin: unsigned.describe('Repeats further apart than this point to the dial or its stand.'),
  uncertainty: unsigned.describe('Standard uncertainty of one dial reading.'),
  weight: z
    .number()
    .min(0)
    .max(1000)
    .describe('Weight of end play against clearance for flanged shells; 0: only splits ties.'),
  walked: z.boolean().describe('True if the shaft was pushed to and fro first, to squeeze the oil out.'),
  readings: z.record(z.string().min(1).max(60), endPlayReadingSchema),
  choice: pieceChoiceSchema.nullable(),
});
export type EndPlay = z.output<typeof endPlaySchema>;

/**
 * Nothing read, and the usual settings, each of which the fitter can change. Common practice: repeats within 0.025 mm or 0.001 in, halves
 * of a face within 0.005 mm, three rings before two, half a graduation of an ordinary dial as the uncertainty of a reading.
 */
export function blankEndPlay(unit: Unit): EndPlay {
  return {
    kind: null,
    halves: ['upper', 'lower'],
    fitted: { front: null, rear: null, width: null },
    coating: 'unknown',
    aim: null,
    settle: nanometres(0),
    counts: [3, 2],
    maxShift: null,
    alikeWithin: nanometres(5_000),
    repeatWithin: nanometres(unit === 'mm' ? 25_000 : 25_400),
    uncertainty: nanometres(unit === 'mm' ? 5_000 : 6_350),
    weight: 0,
    walked: false,
    readings: {},
    choice: null,
  };
}
