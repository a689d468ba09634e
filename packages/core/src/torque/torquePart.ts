import { documentPart, type PartValues } from '../document/documentPart.js';
import { BLANK_TIGHTENED, tightenedSchema } from './tightenedSchema.js';

/** Passes that were done, and stretches that were read. */
export const torquePart = documentPart({
  members: { torque: tightenedSchema },
  since: 5,
  blank: () => ({ torque: BLANK_TIGHTENED }),
});
export type TorqueMembers = PartValues<typeof torquePart>;
