import { z } from 'zod';
import { LONGEST, type Nanometres } from './nanometres.js';

/** The schemas of lengths; one that is made from another by a check or a description is one as well. */
export const LENGTH_SCHEMAS = z.registry<{ readonly isLength: true }>();

/** A length in a document of Fettle's own: whole nanometres. */
export const nanometresSchema = z
  .int()
  .min(-LONGEST)
  .max(LONGEST)
  .transform((value) => value as Nanometres)
  .meta({ description: 'Length in whole nanometres.' });
LENGTH_SCHEMAS.add(nanometresSchema, { isLength: true });

/** A length of zero or more. */
export const notNegativeNmSchema = nanometresSchema.refine((value) => value >= 0, 'cannot be below zero');

/** A size: a length above zero. */
export const sizeNmSchema = nanometresSchema.refine((value) => value > 0, 'must be above 0');

/** A closed interval of sizes. */
export const sizeBandSchema = z
  .strictObject({ low: sizeNmSchema, high: sizeNmSchema })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });

/** True if a wall lies in its band, where it has one. */
export function isInBand({ wall, band }: { wall: number; band?: { low: number; high: number } | undefined }): boolean {
  return band === undefined || (wall >= band.low && wall <= band.high);
}
export const NOT_IN_BAND = { path: ['wall'], error: 'the wall is not in its band' };

/** Limits from the engine's data sheet. They always name where they come from. */
export const limitSchema = z
  .strictObject({
    low: nanometresSchema,
    high: nanometresSchema,
    source: z.string().trim().min(1, 'enter the book and page of the limits').max(200),
  })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'the low limit is above the high limit; swap them' });
export type Limit = z.infer<typeof limitSchema>;
