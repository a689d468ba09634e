import { z } from 'zod';
import { personSchema } from '../job/jobWire.js';
import { unitSchema } from '../measure/unit.js';
import { engineTypeSchema } from './engineType.js';

export const typePutSchema = z.strictObject({
  revision: z.int().min(0).describe('The revision the change was made from; 0 for a new type.'),
  by: personSchema,
  type: engineTypeSchema,
});

export const typeArchiveSchema = z.strictObject({ by: personSchema, archived: z.boolean() });

const stamp = { updatedAt: z.iso.datetime(), updatedBy: z.string() };

export const typeViewSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  revision: z.int().min(1).describe('Goes up with every change; each one is kept.'),
  type: engineTypeSchema,
  archivedAt: z.iso.datetime().nullable(),
  ...stamp,
});
export type TypeView = z.infer<typeof typeViewSchema>;

export const typeSummarySchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  revision: z.int().min(1),
  name: z.string(),
  note: z.string(),
  unit: unitSchema,
  mains: z.int(),
  rods: z.int(),
  coded: z.array(z.enum(['main', 'rod'])).describe('Families with a selection table.'),
  found: z.array(z.string()).describe('Lines of the sheet in which the words of a search stand.'),
  archivedAt: z.iso.datetime().nullable(),
  ...stamp,
});
export type TypeSummary = z.infer<typeof typeSummarySchema>;

export const typeRevisionSchema = z.strictObject({
  revision: z.int().min(1),
  at: z.iso.datetime(),
  by: z.string(),
  type: engineTypeSchema,
});
export type TypeRevision = z.infer<typeof typeRevisionSchema>;
