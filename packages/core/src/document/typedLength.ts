import { z } from 'zod';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import type { Nanometres } from '../measure/nanometres.js';
import { type Unit, unitSchema } from '../measure/unit.js';
import { personSchema } from './person.js';

/** A length as somebody wrote it. */
export const writtenLengthSchema = z.strictObject({
  text: z.string().max(64, 'at most 64 characters').describe('As typed.'),
  unit: unitSchema.describe('Unit of a bare figure when it was typed.'),
  nm: nanometresSchema.nullable().describe('The length; null: the text is not a length.'),
});

/** A length with who wrote it and when: the one shape of all that is read off a dial, a gauge or a feeler, beside the readings of parts. */
export const typedLengthSchema = writtenLengthSchema.extend({ by: personSchema, at: momentSchema });
export type TypedLength = z.output<typeof typedLengthSchema>;

/** Who does something, and when. */
export interface Doing {
  readonly by: string;
  readonly at: string;
}

/**
 * What is kept of a length that was typed.
 *
 * @param nm what it means; null: it is not a length
 */
export function typedLength(text: string, unit: Unit, nm: Nanometres | null, { by, at }: Doing): TypedLength {
  return { text: text.trim(), unit, nm, by, at };
}
