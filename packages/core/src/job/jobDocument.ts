import { z } from 'zod';
import { versioned } from '../document/versioned.js';
import { PART_MEMBERS } from './jobParts.js';
import { JOB_UPGRADES, JOB_VERSION } from './jobUpgrades.js';

/** What a job document says it is. */
export const JOB_FORMAT = `fettle.job/${JOB_VERSION}` as const;

/**
 * One engine on a bench: everything about it except its readings, which are kept one by one. Each piece of the work owns its part of it. Lists
 * that two people may change at once are records by id, so that their changes merge.
 */
const currentSchema = z.strictObject({
  format: z.literal(JOB_FORMAT).describe('What this is, and the version it is written in.'),
  ...PART_MEMBERS,
});

/** The job document, read from whichever version it was written in. */
export const jobDocumentSchema = versioned('fettle.job', JOB_UPGRADES, currentSchema);
export type JobDocument = z.output<typeof currentSchema>;
