import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { jobShellSchema } from '../shell/jobShell.js';
import { atMostKinds } from '../shell/mostKinds.js';

/** The halves that an engine may take. */
export const shellsPart = documentPart({
  members: { shells: atMostKinds(z.record(z.string().min(1).max(60), jobShellSchema), 'halves') },
  since: 1,
  blank: () => ({ shells: {} }),
});
export type ShellsMembers = PartValues<typeof shellsPart>;
