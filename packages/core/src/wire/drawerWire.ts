import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { drawerMovementSchema } from '../drawer/drawerMovement.js';
import { drawerPieceSchema, pieceLineSchema } from '../drawer/drawerPiece.js';
import { drawerHalfSchema, drawerLineSchema, kitSchema } from '../drawer/workshopDrawer.js';
import { pieceChoiceSchema } from '../endPlay/endPlaySchema.js';
import { acceptedChoiceSchema } from '../job/jobDocument.js';
import { endpoint } from './endpoint.js';
import { goesOnSchema, jobIdSchema, jobViewSchema, pageQuery, stampQuerySchema } from './jobWire.js';

const idSchema = z.uuid('an id in the drawer is a UUID').toLowerCase();
const byId = z.object({ id: idSchema });

/** Something done to the drawer, all of it or nothing. */
const drawerMoveSchema = z.strictObject({
  by: personSchema,
  kind: z.enum(['receive', 'use', 'return', 'count', 'number', 'change', 'add', 'remove', 'import']),
  note: z.string().trim().max(300).default(''),
  changes: z
    .array(
      z
        .strictObject({
          id: idSchema,
          version: z.int().min(0).describe('The version the change was made from; 0 for a new kind.'),
          half: drawerHalfSchema.nullable().optional().describe('A half; null takes it out of the drawer.'),
          piece: drawerPieceSchema
            .nullable()
            .optional()
            .describe('Or a washer, a flanged half or a shim; null takes it out of the drawer.'),
        })
        .refine(({ half, piece }) => (half === undefined) !== (piece === undefined), {
          path: ['half'],
          error: 'give a half or a piece',
        }),
    )
    .min(1)
    .max(2000),
});
export type DrawerMove = z.output<typeof drawerMoveSchema>;

const kitViewSchema = z.strictObject({ id: idSchema, version: z.int().min(1), kit: kitSchema });
export type KitView = z.infer<typeof kitViewSchema>;

/** Choices of several engines, accepted together or not at all. */
const acceptTogetherSchema = z.strictObject({
  by: personSchema,
  jobs: z
    .array(
      z
        .strictObject({
          id: jobIdSchema,
          version: z.int().min(1),
          choice: acceptedChoiceSchema.optional().describe('Its halves.'),
          endPlay: pieceChoiceSchema.optional().describe('Its washers, flanged halves or rings.'),
        })
        .refine(({ choice, endPlay }) => choice !== undefined || endPlay !== undefined, {
          path: ['choice'],
          error: 'give a choice of halves, or one for the end play',
        }),
    )
    .min(1)
    .max(5000),
});

const fittedSchema = z.strictObject({
  by: personSchema,
  fitted: z
    .boolean()
    .describe('true: the reserved halves go into the engine and leave the drawer; false takes that back.'),
});

const drawerSchema = z.array(drawerLineSchema);

/** What a movement changed, and nothing else: the whole drawer may be large. */
const movedSchema = z.strictObject({
  lines: z.array(drawerLineSchema).describe('The halves that were touched, as they are now.'),
  pieces: z.array(pieceLineSchema).describe('The washers, flanged halves and shims that were.'),
  gone: z.array(idSchema).describe('What was taken out of the drawer.'),
});
export type Moved = z.output<typeof movedSchema>;

export const DRAWER_ENDPOINTS = {
  listDrawer: endpoint({
    method: 'get',
    at: '/api/drawer',
    needs: 'read',
    summary: 'The workshop’s halves, which engine has reserved how many, and how many were used in all',
    query: z.object({
      job: jobIdSchema.optional().describe('An engine: how many of each were fitted into it is told as well.'),
    }),
    answer: drawerSchema,
    problems: ['invalid-request'],
    topics: ['drawer'],
    isTagged: true,
  }),
  listPieces: endpoint({
    method: 'get',
    at: '/api/drawer/pieces',
    needs: 'read',
    summary:
      'The workshop’s washers, flanged halves and shims, which engine has reserved how many, and how many were used',
    query: z.object({
      job: jobIdSchema.optional().describe('An engine: how many of each were fitted into it is told as well.'),
    }),
    answer: z.array(pieceLineSchema),
    problems: ['invalid-request'],
    topics: ['drawer'],
    isTagged: true,
  }),
  moveDrawer: endpoint({
    method: 'post',
    at: '/api/drawer/move',
    needs: 'drawer',
    summary:
      'Put halves or pieces into the drawer, take them out or change them, each from the version it was read at: all or nothing',
    body: drawerMoveSchema,
    answer: movedSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'id-in-use'],
    topics: ['drawer', 'movements'],
  }),
  drawerHistory: endpoint({
    method: 'get',
    at: '/api/drawer/history',
    needs: 'read',
    summary: 'What was done to the drawer, the last first',
    query: z.object({
      line: idSchema.optional().describe('Only what was done to this kind of half.'),
      ...pageQuery,
    }),
    answer: z.strictObject({ entries: z.array(drawerMovementSchema), goesOn: goesOnSchema }),
    problems: ['invalid-request'],
    topics: ['movements'],
    isTagged: true,
  }),
  undoMovement: endpoint({
    method: 'post',
    at: '/api/drawer/undo/{id}',
    needs: 'drawer',
    summary: 'Take something back that was done to the drawer',
    path: byId,
    body: z.strictObject({ by: personSchema }),
    answer: movedSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
    topics: ['drawer', 'movements'],
  }),
  listKits: endpoint({
    method: 'get',
    at: '/api/drawer/kits',
    needs: 'read',
    summary: 'Named lists of halves that are bought together',
    answer: z.array(kitViewSchema),
    topics: ['kits'],
    isTagged: true,
  }),
  putKit: endpoint({
    method: 'put',
    at: '/api/drawer/kits/{id}',
    needs: 'drawer',
    summary: 'Keep a kit, from the version it was read at',
    path: byId,
    body: z.strictObject({ version: z.int().min(0), by: personSchema, kit: kitSchema }),
    answer: z.array(kitViewSchema),
    statuses: { 201: 'A new one', 200: 'Changed' },
    problems: ['invalid-request', 'stale-version', 'id-in-use'],
    topics: ['kits'],
  }),
  deleteKit: endpoint({
    method: 'delete',
    at: '/api/drawer/kits/{id}',
    needs: 'drawer',
    summary: 'Take a kit away',
    path: byId,
    query: stampQuerySchema,
    answer: z.array(kitViewSchema),
    problems: ['invalid-request', 'stale-version'],
    topics: ['kits'],
  }),
  acceptTogether: endpoint({
    method: 'post',
    at: '/api/drawer/accept',
    needs: 'bench',
    summary: 'Accept the choices of several engines together, all or none',
    body: acceptTogetherSchema,
    answer: z.array(jobViewSchema),
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
    topics: ['benches', 'engine', 'drawer', 'history'],
  }),
  setFitted: endpoint({
    method: 'post',
    at: '/api/drawer/fitted/{id}',
    needs: 'bench',
    summary: 'Mark the halves that an engine has reserved as fitted, or take that back',
    path: z.object({ id: jobIdSchema }),
    body: fittedSchema,
    answer: movedSchema,
    problems: ['invalid-request', 'not-found', 'drawer-short'],
    topics: ['benches', 'engine', 'history', 'drawer', 'movements'],
  }),
} as const;
