import { z } from 'zod';
import { sizeBandSchema } from '../measure/lengthSchema.js';
import { markSchema } from '../part/mark.js';
import { positionSchema } from './position.js';

/** Paint that tells a grade; always shown with its name and a pattern of its own. */
export const PAINTS = [
  'black',
  'white',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'brown',
  'grey',
  'pink',
  'violet',
] as const;
export type Paint = (typeof PAINTS)[number];

/** A grade of shell with what its wall may be. */
export const gradeSchema = z
  .strictObject({
    mark: markSchema,
    ...sizeBandSchema.shape,
    paint: z.enum(PAINTS).nullable().default(null),
    positions: z
      .array(positionSchema)
      .min(1)
      .max(10)
      .optional()
      .describe('Positions its shells are made for; omitted: every station of the family.'),
  })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });
export type Grade = z.infer<typeof gradeSchema>;
