import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { FEATURES } from '../part/feature.js';

/** Stamped rows as they were typed, each with the end that its first mark belongs to. Marks of the rods are on the rods. */
export const markRowSchema = z.strictObject({
  text: z.string().max(200, 'at most 200 characters'),
  first: z.enum(['front', 'rear']),
});

/** Grade marks as they were typed, and whether stations are selected by them alone. */
export const marksPart = documentPart({
  members: {
    /** By feature: `mainBore`, `mainJournal`, `pin`. */
    marks: z.partialRecord(z.enum(FEATURES), markRowSchema),
    /** What stations are chosen from: measured sizes, with marks until they are measured, or marks alone. */
    depth: z.enum(['measure', 'codes']),
  },
  since: 1,
  blank: () => ({ marks: {}, depth: 'measure' as const }),
});
export type MarksMembers = PartValues<typeof marksPart>;
