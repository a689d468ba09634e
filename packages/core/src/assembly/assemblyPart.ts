import { documentPart, type PartValues } from '../document/documentPart.js';
import { assemblySchema, BLANK_ASSEMBLY } from './assemblySchema.js';

/** Checks while the engine is put together, how it turns, and parts that changed places. */
export const assemblyPart = documentPart({
  members: { assembly: assemblySchema },
  since: 5,
  blank: () => ({ assembly: BLANK_ASSEMBLY }),
});
export type AssemblyMembers = PartValues<typeof assemblyPart>;
