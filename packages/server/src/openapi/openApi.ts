import {
  acceptTogetherSchema,
  drawerLineSchema,
  drawerMovementSchema,
  drawerMoveSchema,
  fitPlanSchema,
  fitRequestSchema,
  fittedSchema,
  jobChangeSchema,
  jobCreateSchema,
  jobPatchSchema,
  jobStampSchema,
  jobSummarySchema,
  jobViewSchema,
  kitPutSchema,
  kitViewSchema,
  problemSchema,
  readingDraftSchema,
  readingSchema,
  typeArchiveSchema,
  typePutSchema,
  typeRevisionSchema,
  typeSummarySchema,
  typeViewSchema,
  undoSchema,
} from '@fettle/core';
import { z } from 'zod';
import { drawerPathSchema } from '../drawer/drawerRoutes.js';
import { typeListQuerySchema, typePathSchema } from '../engineType/typeRoutes.js';
import { jobListQuerySchema, jobPathSchema, stampQuerySchema } from '../job/jobRoutes.js';
import { readingPathSchema } from '../reading/readingRoutes.js';

export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly parameters?: { readonly in: 'path' | 'query'; readonly schema: z.ZodObject }[];
  readonly body?: z.ZodType;
  readonly answer: z.ZodType;
  readonly problems: readonly string[];
}

const healthSchema = z.strictObject({ status: z.literal('ok') });
const byPath = { in: 'path', schema: jobPathSchema } as const;

/** Every operation of the API with the schemas that the routes themselves validate with. */
export const OPERATIONS: readonly Operation[] = [
  {
    method: 'get',
    path: '/api/health',
    summary: 'Whether server and database answer',
    answer: healthSchema,
    problems: ['not-ready'],
  },
  {
    method: 'get',
    path: '/api/jobs',
    summary: 'Engines on the benches, last touched first; with deleted=true the deleted ones',
    parameters: [{ in: 'query', schema: jobListQuerySchema }],
    answer: z.array(jobSummarySchema),
    problems: ['invalid-request'],
  },
  {
    method: 'post',
    path: '/api/jobs',
    summary: 'Start an engine',
    body: jobCreateSchema,
    answer: jobViewSchema,
    problems: ['invalid-request', 'id-in-use'],
  },
  {
    method: 'get',
    path: '/api/jobs/{id}',
    summary: 'One engine with its current readings',
    parameters: [byPath],
    answer: jobViewSchema,
    problems: ['not-found'],
  },
  {
    method: 'patch',
    path: '/api/jobs/{id}',
    summary: 'Change the document of an engine, from the version it was read at',
    parameters: [byPath],
    body: jobPatchSchema,
    answer: jobViewSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
  },
  {
    method: 'delete',
    path: '/api/jobs/{id}',
    summary: 'Take an engine off the benches; it can be brought back',
    parameters: [byPath, { in: 'query', schema: stampQuerySchema }],
    answer: jobViewSchema,
    problems: ['not-found', 'stale-version'],
  },
  {
    method: 'post',
    path: '/api/jobs/{id}/restore',
    summary: 'Bring a deleted engine back',
    parameters: [byPath],
    body: jobStampSchema,
    answer: jobViewSchema,
    problems: ['not-found', 'stale-version'],
  },
  {
    method: 'get',
    path: '/api/jobs/{id}/history',
    summary: 'Who changed what and when, newest first',
    parameters: [byPath],
    answer: z.array(jobChangeSchema),
    problems: ['not-found'],
  },
  {
    method: 'put',
    path: '/api/jobs/{id}/readings/{reading}',
    summary: 'Keep one reading; sending it again changes nothing',
    parameters: [{ in: 'path', schema: readingPathSchema }],
    body: readingDraftSchema,
    answer: readingSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'id-in-use'],
  },
  {
    method: 'get',
    path: '/api/drawer',
    summary: 'The workshop’s halves, and which engine has reserved or used how many',
    answer: z.array(drawerLineSchema),
    problems: [],
  },
  {
    method: 'post',
    path: '/api/drawer/move',
    summary:
      'Put halves into the drawer, take them out or change them, each from the version it was read at: all or nothing',
    body: drawerMoveSchema,
    answer: z.array(drawerLineSchema),
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short'],
  },
  {
    method: 'get',
    path: '/api/drawer/history',
    summary: 'What was done to the drawer, the last first',
    answer: z.array(drawerMovementSchema),
    problems: [],
  },
  {
    method: 'post',
    path: '/api/drawer/undo/{id}',
    summary: 'Take something back that was done to the drawer',
    parameters: [{ in: 'path', schema: drawerPathSchema }],
    body: undoSchema,
    answer: z.array(drawerLineSchema),
    problems: ['not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
  },
  {
    method: 'get',
    path: '/api/drawer/kits',
    summary: 'Named lists of halves that are bought together',
    answer: z.array(kitViewSchema),
    problems: [],
  },
  {
    method: 'put',
    path: '/api/drawer/kits/{id}',
    summary: 'Keep a kit, from the version it was read at',
    parameters: [{ in: 'path', schema: drawerPathSchema }],
    body: kitPutSchema,
    answer: z.array(kitViewSchema),
    problems: ['invalid-request', 'stale-version'],
  },
  {
    method: 'delete',
    path: '/api/drawer/kits/{id}',
    summary: 'Take a kit away',
    parameters: [
      { in: 'path', schema: drawerPathSchema },
      { in: 'query', schema: stampQuerySchema },
    ],
    answer: z.array(kitViewSchema),
    problems: ['stale-version'],
  },
  {
    method: 'get',
    path: '/api/types',
    summary: 'The library of engine types by name; with words, those whose sheets hold them',
    parameters: [{ in: 'query', schema: typeListQuerySchema }],
    answer: z.array(typeSummarySchema),
    problems: ['invalid-request'],
  },
  {
    method: 'get',
    path: '/api/types/{id}',
    summary: 'One engine type in its last revision',
    parameters: [{ in: 'path', schema: typePathSchema }],
    answer: typeViewSchema,
    problems: ['not-found'],
  },
  {
    method: 'get',
    path: '/api/types/{id}/revisions',
    summary: 'Every revision of an engine type, the last first',
    parameters: [{ in: 'path', schema: typePathSchema }],
    answer: z.array(typeRevisionSchema),
    problems: ['not-found'],
  },
  {
    method: 'put',
    path: '/api/types/{id}',
    summary: 'Keep a new engine type (revision 0), or the next revision of one',
    parameters: [{ in: 'path', schema: typePathSchema }],
    body: typePutSchema,
    answer: typeViewSchema,
    problems: ['invalid-request', 'stale-version'],
  },
  {
    method: 'post',
    path: '/api/types/{id}/archive',
    summary: 'Archive an engine type, or take it out of the archive',
    parameters: [{ in: 'path', schema: typePathSchema }],
    body: typeArchiveSchema,
    answer: typeViewSchema,
    problems: ['not-found'],
  },
  {
    method: 'post',
    path: '/api/drawer/accept',
    summary: 'Accept the choices of several engines together, all or none',
    body: acceptTogetherSchema,
    answer: z.array(jobViewSchema),
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
  },
  {
    method: 'post',
    path: '/api/drawer/fitted/{id}',
    summary: 'Mark the halves that an engine has reserved as fitted, or take that back',
    parameters: [byPath],
    body: fittedSchema,
    answer: z.array(drawerLineSchema),
    problems: ['invalid-request', 'not-found'],
  },
  {
    method: 'post',
    path: '/api/fit',
    summary: 'Choose shells: a fit request in, its plan out',
    body: fitRequestSchema,
    answer: fitPlanSchema,
    problems: ['invalid-request', 'took-too-long'],
  },
];

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): object {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return rest;
}

/** The OpenAPI 3.1 description of the API, made from the schemas that it validates with. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const { method, path, summary, parameters = [], body, answer, problems } of OPERATIONS) {
    paths[path] ??= {};
    paths[path][method] = {
      summary,
      parameters: parameters.flatMap(({ in: place, schema }) =>
        Object.entries(schema.shape).map(([name, field]) => ({
          name,
          in: place,
          required: !(field as z.ZodType).safeParse(undefined).success,
          schema: schemaOf(field as z.ZodType, 'input'),
        })),
      ),
      ...(body
        ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(body, 'input') } } } }
        : {}),
      responses: {
        200: { description: 'Done', content: { 'application/json': { schema: schemaOf(answer, 'output') } } },
        default: {
          description: `Problem details (RFC 9457): ${problems.join(', ')}`,
          content: { 'application/problem+json': { schema: schemaOf(problemSchema, 'output') } },
        },
      },
    };
  }
  return { openapi: '3.1.0', info: { title: 'Fettle', version: '0.1.0' }, paths };
}
