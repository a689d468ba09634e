import { z } from 'zod';
import { documentPart } from '../document/documentPart.js';
import { TRIAL_SCHOOLS, trialSchema } from '../station/trialSchema.js';

/** Stations assembled and read before the rest, and how far a job goes before it believes its figures. */
export const trialPart = documentPart({
  members: {
    /** Stations that were put together and read with their shells in, by station. */
    trials: z.record(z.string().min(1).max(10), trialSchema),
    trialSchool: z.enum(TRIAL_SCHOOLS),
  },
  since: 3,
  // Readings name their gauge and their temperatures since; those from before do without.
  upgrades: { 8: (document) => document },
  blank: ({ isByMarks }) => ({ trials: {}, trialSchool: isByMarks ? ('codes' as const) : ('every' as const) }),
});
