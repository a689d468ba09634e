import { z } from 'zod';

/** Where a piece goes: into a stack; to a face and its half; to a half of a flanged shell; to a side of a joint. */
export const SHIM_PLACES = [
  'stack',
  'front.upper',
  'front.lower',
  'rear.upper',
  'rear.lower',
  'upper',
  'lower',
  'left',
  'right',
] as const;
export const shimPlaceSchema = z.enum(SHIM_PLACES);
export type ShimPlace = z.infer<typeof shimPlaceSchema>;
