import { z } from 'zod';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { eachFamily } from '../part/family.js';
import { fastenersSchema, UNKNOWN_FASTENERS } from './fasteners.js';

/** What holds the housings of each family. */
export const fastenersPart = documentPart({
  members: { fasteners: z.strictObject(eachFamily(() => fastenersSchema)) },
  since: 3,
  blank: () => ({ fasteners: eachFamily(() => UNKNOWN_FASTENERS) }),
  upgrades: {
    /** From before fasteners had figures of their own. */
    5: ({ fasteners }) => {
      const stored = storedRecord(fasteners);
      return { fasteners: eachFamily((family) => ({ figures: [], ...storedRecord(stored[family]) })) };
    },
  },
});
export type FastenersMembers = PartValues<typeof fastenersPart>;
