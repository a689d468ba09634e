import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';

/** True if the build sheet was printed. */
export const sheetPart = documentPart({
  members: {
    /** When the build sheet was last printed or saved, and by whom; null until then. */
    printed: z.strictObject({ at: momentSchema, by: personSchema }).nullable(),
  },
  since: 4,
  blank: () => ({ printed: null }),
});
export type SheetMembers = PartValues<typeof sheetPart>;
