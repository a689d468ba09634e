import { z } from 'zod';
import { nanometresSchema, sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';

/** One half as it was when its choice was accepted: a later change in the drawer does not rewrite it. */
const chosenHalfSchema = z.strictObject({
  shell: z.string(),
  label: z.string(),
  wall: sizeNmSchema,
  band: sizeBandSchema.optional(),
});

/** The halves, and at a pin the rod, that were accepted for each station, by whom and when. */
export const acceptedChoiceSchema = z.strictObject({
  at: momentSchema,
  by: z.string(),
  stations: z.record(
    z.string(),
    z.strictObject({
      upper: chosenHalfSchema,
      lower: chosenHalfSchema,
      predicted: nanometresSchema,
      /** Number of the rod on a pin; null at a main. */
      rod: z.int().min(1).nullable().default(null),
    }),
  ),
});
export type AcceptedChoice = z.infer<typeof acceptedChoiceSchema>;
