import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';

/** Plugs of the oil galleries that were fitted again after washing. */
export const plugsPart = documentPart({
  members: {
    /** By the name of the plug; null until it is in. */
    plugs: z.record(z.string().min(1).max(40), z.strictObject({ by: personSchema, at: momentSchema }).nullable()),
  },
  since: 6,
  blank: () => ({ plugs: {} }),
});
export type PlugsMembers = PartValues<typeof plugsPart>;
