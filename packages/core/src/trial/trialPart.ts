import { z } from 'zod';
import { documentPart } from '../document/documentPart.js';
import { expectedOffsetSchema } from '../station/expectedOffsetSchema.js';
import { TRIAL_SCHOOLS, trialSchema } from '../station/trialSchema.js';

/** Stations assembled and read before the rest, and how far a job goes before it believes its figures. */
export const trialPart = documentPart({
  members: {
    /** Stations that were put together and read with their shells in, by station. */
    trials: z.record(z.string().min(1).max(10), trialSchema),
    trialSchool: z.enum(TRIAL_SCHOOLS),
    /** What other engines let expect that assembly adds, where the fitter took it over: by family and series. */
    expected: z.record(z.string().min(1).max(70), expectedOffsetSchema),
  },
  since: 3,
  // Readings name their gauge and their temperatures since, and what other engines let expect can be taken over.
  upgrades: { 8: ({ expected }) => ({ expected: expected ?? {} }) },
  blank: ({ isByMarks }) => ({
    trials: {},
    expected: {},
    trialSchool: isByMarks ? ('codes' as const) : ('every' as const),
  }),
});
