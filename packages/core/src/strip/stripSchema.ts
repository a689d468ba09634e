import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { writtenLengthSchema } from '../document/typedLength.js';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';

/** Where on a strip its width is read: at either end, which gives the taper. */
export const STRIP_ENDS = ['front', 'rear'] as const;
export type StripEnd = (typeof STRIP_ENDS)[number];

/** A width as it was read off a pressed strip. */
const stripWidthSchema = writtenLengthSchema.extend({ nm: sizeNmSchema.nullable() });

/** A soft round strip that was pressed flat in a station, and how wide it became. */
export const stripSchema = z.strictObject({
  diameter: sizeNmSchema.describe('Diameter of the round strip, from its maker.'),
  name: z.string().trim().max(40, 'at most 40 characters').describe('Name of the strip; may be empty.'),
  widths: z.strictObject({ front: stripWidthSchema.nullable(), rear: stripWidthSchema.nullable() }),
  ringsOff: z
    .boolean()
    .optional()
    .describe('At a rod: true if its piston had no rings on, so that nothing turned the shaft. Left out: not said.'),
  by: personSchema,
  at: momentSchema,
});
export type Strip = z.output<typeof stripSchema>;
