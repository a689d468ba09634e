import { z } from 'zod';

/** Main bearings, or rod (big-end) bearings. */
export const FAMILIES = ['main', 'rod'] as const;
export const familySchema = z.enum(FAMILIES);
export type Family = z.infer<typeof familySchema>;
