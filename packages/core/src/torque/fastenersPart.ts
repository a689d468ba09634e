import { z } from 'zod';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { fastenersSchema, UNKNOWN_FASTENERS } from './fasteners.js';

/** What holds the housings of each family. */
export const fastenersPart = documentPart({
  members: { fasteners: z.strictObject({ main: fastenersSchema, rod: fastenersSchema }) },
  since: 3,
  blank: () => ({ fasteners: { main: UNKNOWN_FASTENERS, rod: UNKNOWN_FASTENERS } }),
  upgrades: {
    /** From before fasteners had figures of their own. */
    5: ({ fasteners }) => {
      const { main, rod } = storedRecord(fasteners);
      return {
        fasteners: { main: { figures: [], ...storedRecord(main) }, rod: { figures: [], ...storedRecord(rod) } },
      };
    },
  },
});
export type FastenersMembers = PartValues<typeof fastenersPart>;
