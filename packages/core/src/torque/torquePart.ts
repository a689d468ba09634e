import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { boltOfName } from './bolt.js';
import { BLANK_TIGHTENED, tightenedSchema } from './tightenedSchema.js';

/** Passes that were done, and stretches that were read. */
export const torquePart = documentPart({
  members: { torque: tightenedSchema },
  since: 5,
  blank: () => ({ torque: BLANK_TIGHTENED }),
  upgrades: {
    // Stretches were kept by the names of their bolts.
    6: ({ torque }) => {
      const kept = storedRecord(torque);
      const stretch = Object.entries(storedRecord(kept.stretch)).map(([name, read]) => [boltOfName(name), read]);
      return { torque: { ...kept, stretch: Object.fromEntries(stretch) } };
    },
  },
});
export type TorqueMembers = PartValues<typeof torquePart>;
