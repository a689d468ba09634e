import { documentPart, type PartValues } from '../document/documentPart.js';
import { BLANK_CRUSH, crushSchema } from './crushSchema.js';

/** Crush read at the joints, shims, and what they are aimed at. */
export const crushPart = documentPart({
  members: { crush: crushSchema },
  since: 2,
  blank: () => ({ crush: BLANK_CRUSH }),
});
export type CrushMembers = PartValues<typeof crushPart>;
