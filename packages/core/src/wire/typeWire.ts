import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { engineTypeSchema } from '../engineType/engineType.js';
import { momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';
import { familySchema } from '../part/family.js';
import { goesOnSchema, pageQuery } from './benchWire.js';
import { endpoint } from './endpoint.js';

const idSchema = z.uuid('an engine type’s id is a UUID').toLowerCase();
const byId = z.object({ id: idSchema });
const stamp = { updatedAt: momentSchema, updatedBy: z.string() };

const typeViewSchema = z.strictObject({
  id: idSchema,
  revision: z.int().min(1).describe('Goes up with every change; each revision is stored.'),
  type: engineTypeSchema,
  archivedAt: momentSchema.nullable(),
  ...stamp,
});
export type TypeView = z.infer<typeof typeViewSchema>;

const typeSummarySchema = z.strictObject({
  id: idSchema,
  revision: z.int().min(1),
  name: z.string(),
  note: z.string(),
  unit: unitSchema,
  mains: z.int(),
  rods: z.int(),
  coded: z.array(familySchema).describe('Families with a selection table.'),
  found: z.array(z.string()).describe('Lines of the data sheet that match the search.'),
  archivedAt: momentSchema.nullable(),
  ...stamp,
});
export type TypeSummary = z.infer<typeof typeSummarySchema>;

const typeRevisionSchema = z.strictObject({
  revision: z.int().min(1),
  at: momentSchema,
  by: z.string(),
  type: engineTypeSchema,
});
export type TypeRevision = z.infer<typeof typeRevisionSchema>;

/** Types that are told at once: on a page, and where one is chosen from all of them. */
const TYPES_PAGE = 100;
export const MOST_TYPES_AT_ONCE = 1000;

export const TYPE_ENDPOINTS = {
  listTypes: endpoint({
    method: 'get',
    at: '/api/types',
    needs: 'read',
    summary: 'The library of engine types by name; words filters by what the sheets say',
    query: z.object({
      archived: z.enum(['true', 'false']).default('false'),
      words: z.string().max(200).default(''),
      after: z
        .string()
        .regex(/^\d{1,6}$/u, 'use the `goesOn` of the page before')
        .optional(),
      most: z.coerce.number().int().min(1).max(MOST_TYPES_AT_ONCE).default(TYPES_PAGE),
    }),
    answer: z.strictObject({ types: z.array(typeSummarySchema), goesOn: goesOnSchema }),
    problems: ['invalid-request'],
    topics: ['types'],
    isTagged: true,
  }),
  getType: endpoint({
    method: 'get',
    at: '/api/types/{id}',
    needs: 'read',
    summary: 'One engine type in its last revision',
    path: byId,
    answer: typeViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['types'],
    isTagged: true,
  }),
  typeRevisions: endpoint({
    method: 'get',
    at: '/api/types/{id}/revisions',
    needs: 'read',
    summary: 'Revisions of an engine type, newest first',
    path: byId,
    query: z.object(pageQuery),
    answer: z.strictObject({
      revisions: z.array(typeRevisionSchema),
      before: typeRevisionSchema
        .nullable()
        .describe('The revision before them, to show what the first of them changed.'),
      goesOn: goesOnSchema,
    }),
    problems: ['invalid-request', 'not-found'],
    topics: ['types'],
    isTagged: true,
  }),
  putType: endpoint({
    method: 'put',
    at: '/api/types/{id}',
    needs: 'types',
    summary: 'Save a new engine type (revision 0), or the next revision of one',
    path: byId,
    body: z.strictObject({
      revision: z.int().min(0).describe('The revision the change was made from; 0 for a new type.'),
      by: personSchema,
      type: engineTypeSchema,
    }),
    answer: typeViewSchema,
    statuses: { 201: 'A new one', 200: 'Its next revision' },
    problems: ['invalid-request', 'stale-version', 'id-in-use'],
    topics: ['types'],
  }),
  archiveType: endpoint({
    method: 'post',
    at: '/api/types/{id}/archive',
    needs: 'types',
    summary: 'Archive an engine type, or restore it',
    path: byId,
    body: z.strictObject({ by: personSchema, archived: z.boolean() }),
    answer: typeViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['types'],
  }),
} as const;
