import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { jobDocumentSchema } from '../job/jobDocument.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { familySchema } from '../part/family.js';
import { FEATURES, SLOTS } from '../part/feature.js';
import { readingDraftSchema, readingSchema } from '../part/reading.js';
import { goesOnSchema, heldSchema, jobIdSchema, pageQuery, versionSchema } from './benchWire.js';
import { endpoint } from './endpoint.js';

const jsonValueSchema = z.json();

const byId = z.object({ id: jobIdSchema });

const jobCreateSchema = z.strictObject({
  id: jobIdSchema.describe('Made by the client: sending it twice creates one engine.'),
  by: personSchema,
  document: jobDocumentSchema,
});

const jobPatchSchema = z.strictObject({
  version: versionSchema.describe('The version the change was made from.'),
  by: personSchema,
  steps: z
    .array(
      z.discriminatedUnion('op', [
        z.strictObject({ op: z.literal('add'), path: z.string().max(500), value: jsonValueSchema }),
        z.strictObject({ op: z.literal('remove'), path: z.string().max(500) }),
      ]),
    )
    .min(1, 'send at least one change')
    .max(2000)
    .describe('Steps of a JSON Patch (RFC 6902) on the job document; paths are JSON Pointers.'),
});

/** Version and name travel in the query where a method has no body. */
export const stampQuerySchema = z.object({ version: z.coerce.number().int().min(1), by: personSchema });

export const jobViewSchema = z.strictObject({
  id: jobIdSchema,
  version: versionSchema.describe('Goes up with every change of the document.'),
  revision: z.int().describe('Goes up with every change of the document or a reading.'),
  document: jobDocumentSchema,
  readings: z.array(readingSchema).describe('The current reading of every place.'),
  held: heldSchema,
  createdAt: momentSchema,
  createdBy: z.string(),
  updatedAt: momentSchema,
  updatedBy: z.string(),
  deletedAt: momentSchema.nullable(),
});
export type JobView = z.infer<typeof jobViewSchema>;

/** One entry of a job's history: who changed what, and when by the server's clock. */
export const jobChangeSchema = z.strictObject({
  id: z.string().describe('Unique in the history.'),
  at: momentSchema.describe('When the server stored it; independent of the device’s clock.'),
  by: z.string(),
  kind: z.enum(['created', 'changed', 'deleted', 'restored', 'read']),
  version: versionSchema.nullable().describe('Version of the document it made; null: a reading.'),
  changes: z.array(
    z.strictObject({ path: z.string(), from: jsonValueSchema.optional(), to: jsonValueSchema.optional() }),
  ),
  reading: z
    .strictObject({
      feature: z.enum(FEATURES),
      station: z.int(),
      slot: z.enum(SLOTS),
      from: z.string().nullable().describe('Previous value; null: none.'),
      to: z.string().describe('As typed; empty: removed.'),
      readAt: momentSchema.describe("When it was typed, by the device's clock."),
      reason: z.string().describe('Reason for replacing another; empty: none given.'),
    })
    .nullable(),
});
export type JobChange = z.infer<typeof jobChangeSchema>;

/** What a change of fasteners did to bores that were read before and after it. */
const fastenerMoveSchema = z.strictObject({
  engine: z.string(),
  family: familySchema,
  fasteners: z.string().describe('Fasteners fitted since, by name; empty: unnamed.'),
  since: momentSchema,
  bores: z.int().describe('How many places were read before and after, in the bolt direction.'),
  mean: nanometresSchema.describe('Mean of after minus before.'),
  most: nanometresSchema.describe('Largest of them, either way.'),
});

export const JOB_ENDPOINTS = {
  createJob: endpoint({
    method: 'post',
    at: '/api/jobs',
    needs: 'bench',
    summary: 'New engine',
    body: jobCreateSchema,
    answer: jobViewSchema,
    statuses: { 201: 'Started', 200: 'Already created by the same request' },
    problems: ['invalid-request', 'id-in-use', 'drawer-short'],
    topics: ['benches', 'drawer'],
  }),
  getJob: endpoint({
    method: 'get',
    at: '/api/jobs/{id}',
    needs: 'read',
    summary: 'One engine with its current readings',
    path: byId,
    answer: jobViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['engine'],
    isTagged: true,
  }),
  patchJob: endpoint({
    method: 'patch',
    at: '/api/jobs/{id}',
    needs: 'bench',
    summary: 'Change the document of an engine, from the version it was read at',
    path: byId,
    body: jobPatchSchema,
    answer: jobViewSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
    topics: ['benches', 'drawer', 'history'],
  }),
  deleteJob: endpoint({
    method: 'delete',
    at: '/api/jobs/{id}',
    needs: 'bench',
    summary: 'Close an engine; it can be reopened',
    path: byId,
    query: stampQuerySchema,
    answer: jobViewSchema,
    problems: ['invalid-request', 'not-found', 'stale-version'],
    topics: ['benches', 'drawer', 'history'],
  }),
  restoreJob: endpoint({
    method: 'post',
    at: '/api/jobs/{id}/restore',
    needs: 'bench',
    summary: 'Reopen an engine',
    path: byId,
    body: z.strictObject({ version: versionSchema, by: personSchema }),
    answer: jobViewSchema,
    problems: ['invalid-request', 'not-found', 'stale-version'],
    topics: ['benches', 'drawer', 'history'],
  }),
  jobHistory: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/history',
    needs: 'read',
    summary: 'Who changed what and when, newest first',
    path: byId,
    query: z.object({
      what: z
        .enum(['all', 'readings', 'changes'])
        .default('all')
        .describe('Only readings, or only changes of the document.'),
      person: z.string().max(60).optional().describe('Only what this person did.'),
      ...pageQuery,
    }),
    answer: z.strictObject({ entries: z.array(jobChangeSchema), goesOn: goesOnSchema }),
    problems: ['invalid-request', 'not-found'],
    topics: ['history'],
    isTagged: true,
  }),
  fastenerMoves: endpoint({
    method: 'get',
    at: '/api/fasteners/moves',
    needs: 'read',
    summary: 'By how much changes of fasteners have moved bores in this workshop, the latest first',
    answer: z.strictObject({ moves: z.array(fastenerMoveSchema) }),
    topics: ['engine', 'history'],
    isTagged: true,
  }),
  putReading: endpoint({
    method: 'put',
    at: '/api/jobs/{id}/readings/{reading}',
    needs: 'bench',
    summary: 'Save one reading; sending it again changes nothing',
    path: z.object({
      id: jobIdSchema,
      reading: z.uuid('a reading id is a UUID made by the client').toLowerCase(),
    }),
    body: readingDraftSchema,
    answer: readingSchema,
    statuses: { 201: 'Saved', 200: 'Already stored' },
    problems: ['invalid-request', 'not-found', 'stale-version', 'id-in-use'],
    topics: ['benches', 'history'],
  }),
} as const;
