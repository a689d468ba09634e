import { documentPart, type PartValues } from '../document/documentPart.js';
import { BLANK_RUNOUT, runoutSchema } from './runoutSchema.js';

/** Runout of the shaft and its flange. */
export const runoutPart = documentPart({
  members: { runout: runoutSchema },
  since: 3,
  blank: () => ({ runout: BLANK_RUNOUT }),
});
export type RunoutMembers = PartValues<typeof runoutPart>;
