import { z } from 'zod';
import { STAGES } from '../job/stageName.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';
import { STAGE_STATES } from '../stage/slice.js';
import { endpoint } from './endpoint.js';

/** Version of an engine's document. */
export const versionSchema = z.int().min(1);

export const jobIdSchema = z.uuid('an engine id is a UUID').toLowerCase();

/** What an engine has of the workshop's drawer. */
export const heldSchema = z.strictObject({
  reserved: z.int().min(0).describe('Shells and pieces reserved by its accepted selections.'),
  fitted: z.int().min(0).describe('Number fitted in it, no longer in stock.'),
});
export type Held = z.output<typeof heldSchema>;

/** How far an engine is, kept with it. */
export const jobProgressSchema = z.strictObject({
  next: z.enum(STAGES),
  todo: z.string(),
  stages: z.partialRecord(z.enum(STAGES), z.enum(STAGE_STATES)),
  reminders: z
    .array(z.strictObject({ on: daySchema, next: z.enum(STAGES), todo: z.string() }))
    .readonly()
    .describe('What is to be done from a day on, the earliest first.'),
});

export const jobSummarySchema = z.strictObject({
  id: jobIdSchema,
  version: versionSchema,
  name: z.string(),
  unit: unitSchema,
  mains: z.int(),
  rods: z.int(),
  ...jobProgressSchema.shape,
  held: heldSchema,
  short: z.array(z.string()).describe('Reserved shells that stock, as counted, cannot cover for everyone.'),
  updatedAt: momentSchema,
  updatedBy: z.string(),
  deletedAt: momentSchema.nullable(),
});
export type JobSummary = z.infer<typeof jobSummarySchema>;

/** Where a page of a list goes on. */
export const goesOnSchema = z
  .string()
  .max(100)
  .nullable()
  .describe('Cursor: pass it as `after` for the next page; null: last page.');

/** Rows of a list that are sent at once, unless it is asked for fewer. */
const PAGE = 50;
export const pageQuery = {
  after: z.string().max(100).optional(),
  most: z.coerce.number().int().min(1).max(200).default(PAGE),
};

/** The list of engines: what the first page asks for, without the document of an engine. */
export const BENCH_ENDPOINTS = {
  listJobs: endpoint({
    method: 'get',
    at: '/api/jobs',
    needs: 'read',
    summary: 'Engines, last edited first; deleted=true lists the closed ones; words filters by name and serial number',
    query: z.object({
      deleted: z.enum(['true', 'false']).default('false'),
      words: z.string().max(200).default(''),
      stage: z.enum(STAGES).optional().describe('Only those whose next thing to do is in this stage.'),
      person: z.string().max(60).optional().describe('Only those last edited by this person.'),
      ...pageQuery,
    }),
    answer: z.strictObject({
      jobs: z.array(jobSummarySchema),
      people: z.array(z.string()).describe('People who last edited an engine, in alphabetical order.'),
      goesOn: goesOnSchema,
    }),
    problems: ['invalid-request'],
    topics: ['benches'],
    isTagged: true,
  }),
  listDue: endpoint({
    method: 'get',
    at: '/api/due',
    needs: 'read',
    summary: 'Closed engines with something that was to be done again by a day',
    query: z.object({ until: daySchema }),
    answer: z.strictObject({
      due: z.array(
        z.strictObject({
          id: jobIdSchema,
          version: versionSchema,
          name: z.string(),
          reminders: jobProgressSchema.shape.reminders,
        }),
      ),
      areMore: z.boolean().describe('True if there are more than these.'),
    }),
    problems: ['invalid-request'],
    topics: ['benches'],
  }),
} as const;
