import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { stripSchema } from './stripSchema.js';

/** Gauging strips that were pressed, by station. */
export const stripPart = documentPart({
  members: { strips: z.record(z.string().min(1).max(10), stripSchema) },
  since: 3,
  blank: () => ({ strips: {} }),
});
export type StripMembers = PartValues<typeof stripPart>;
