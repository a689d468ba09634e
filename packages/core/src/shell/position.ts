import { z } from 'zod';

/** The place that every thrust main has, unless it is named otherwise: its halves can be flanged. */
export const THRUST_PLACE = 'thrust';

/**
 * The name of a place along a shaft that takes halves of its own: the thrust main, where halves can be flanged; the rear main, where they are
 * wider; a main of a stepped shaft. A main elsewhere has no place of its own, and takes the halves that fit everywhere. Kept in small letters, so
 * that `Rear` and `rear` are one place.
 */
export const positionSchema = z
  .string()
  .trim()
  .toLowerCase()
  .regex(
    /^[\p{L}\d](?:[\p{L}\d -]{0,18}[\p{L}\d])?$/u,
    'a position is one or two words of at most 20 letters and digits, such as rear',
  );
export type Position = z.infer<typeof positionSchema>;

/** Mains that are places of their own, by number of the main, 1 at the front. */
export const placesSchema = z.record(
  z.string().regex(/^[1-9]\d?$/u, 'a main by its number, 1 at the front'),
  positionSchema,
);
export type Places = z.output<typeof placesSchema>;

/**
 * The place that a main is: as it is named; the thrust main where it has no other name; null for a main like the others.
 *
 * @param number of the main, 1 at the front
 * @example placeOfMain({ places: { 5: 'rear' }, layout: { thrustMain: 3 } }, 3) // 'thrust'
 */
export function placeOfMain(
  { places, layout }: { readonly places: Places; readonly layout: { readonly thrustMain: number | null } },
  number: number,
): Position | null {
  return places[String(number)] ?? (layout.thrustMain === number ? THRUST_PLACE : null);
}
