import { z } from 'zod';
import { unitSchema } from '../measure/unit.js';
import { jobDocumentSchema } from './jobDocument.js';
import { STAGES } from './nextStep.js';
import { readingSchema } from './reading.js';

/** A name typed once per device; who did it is kept with every change. */
export const personSchema = z.string().trim().min(1, 'say who you are').max(60, 'at most 60 characters');
const versionSchema = z.int().min(1);
const jsonValueSchema = z.json();

export const jobCreateSchema = z.strictObject({
  id: z.uuid().toLowerCase().describe('Made by the client, so that sending it twice makes one job.'),
  by: personSchema,
  document: jobDocumentSchema,
});

export const jobPatchSchema = z.strictObject({
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

export const jobStampSchema = z.strictObject({ version: versionSchema, by: personSchema });

export const jobViewSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  version: versionSchema.describe('Goes up with every change of the document.'),
  revision: z.int().describe('Goes up with every change of the document or a reading.'),
  document: jobDocumentSchema,
  readings: z.array(readingSchema).describe('The current reading of every place.'),
  createdAt: z.iso.datetime(),
  createdBy: z.string(),
  updatedAt: z.iso.datetime(),
  updatedBy: z.string(),
  deletedAt: z.iso.datetime().nullable(),
});
export type JobView = z.infer<typeof jobViewSchema>;

export const jobSummarySchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  version: versionSchema,
  name: z.string(),
  unit: unitSchema,
  mains: z.int(),
  rods: z.int(),
  next: z.enum(STAGES),
  todo: z.string(),
  stages: z.partialRecord(z.enum(STAGES), z.enum(['open', 'started', 'done', 'attention'])),
  updatedAt: z.iso.datetime(),
  updatedBy: z.string(),
  deletedAt: z.iso.datetime().nullable(),
});
export type JobSummary = z.infer<typeof jobSummarySchema>;

/** One entry of a job's history: who changed what, and when. */
export const jobChangeSchema = z.strictObject({
  at: z.iso.datetime(),
  by: z.string(),
  version: versionSchema,
  kind: z.enum(['created', 'changed', 'deleted', 'restored', 'read']),
  changes: z.array(
    z.strictObject({ path: z.string(), from: jsonValueSchema.optional(), to: jsonValueSchema.optional() }),
  ),
});
export type JobChange = z.infer<typeof jobChangeSchema>;

/** Problem details (RFC 9457). */
export const problemSchema = z.object({
  type: z.string().describe('What kind of problem; explained on the API page.'),
  title: z.string(),
  status: z.int(),
  detail: z.string().describe('What is wrong here and what would be right.'),
  errors: z.array(z.strictObject({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
