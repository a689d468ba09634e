import { documentPart, type PartValues } from '../document/documentPart.js';
import { blankEndPlay, endPlaySchema } from './endPlaySchema.js';

/** End play as it was read, and the pieces chosen for it. */
export const endPlayPart = documentPart({
  members: { endPlay: endPlaySchema },
  since: 2,
  blank: ({ unit }) => ({ endPlay: blankEndPlay(unit) }),
});
export type EndPlayMembers = PartValues<typeof endPlayPart>;
