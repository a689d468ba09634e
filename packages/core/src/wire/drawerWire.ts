import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { drawerMovementSchema } from '../drawer/drawerMovement.js';
import { drawerPieceSchema, pieceLineSchema } from '../drawer/drawerPiece.js';
import { drawerHalfSchema, drawerLineSchema, kitSchema } from '../drawer/workshopDrawer.js';
import { pieceChoiceSchema } from '../endPlay/endPlaySchema.js';
import { acceptedChoiceSchema } from '../shell/acceptedChoice.js';
import { goesOnSchema, jobIdSchema, pageQuery } from './benchWire.js';
import { endpoint } from './endpoint.js';
import { jobViewSchema, stampQuerySchema } from './jobWire.js';

const idSchema = z.uuid('the id of a stock line is a UUID').toLowerCase();
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
          half: drawerHalfSchema.nullable().optional().describe('A shell; null removes it from stock.'),
          piece: drawerPieceSchema
            .nullable()
            .optional()
            .describe('Or a washer, a flanged shell or a shim; null removes it from stock.'),
        })
        .refine(({ half, piece }) => (half === undefined) !== (piece === undefined), {
          path: ['half'],
          error: 'give a shell or a piece',
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
          choice: acceptedChoiceSchema.optional().describe('Its shells.'),
          endPlay: pieceChoiceSchema.optional().describe('Its washers, flanged shells or rings.'),
        })
        .refine(({ choice, endPlay }) => choice !== undefined || endPlay !== undefined, {
          path: ['choice'],
          error: 'give a selection of shells, or one for the end play',
        }),
    )
    .min(1)
    .max(5000),
});

const fittedSchema = z.strictObject({
  by: personSchema,
  fitted: z.boolean().describe('true: the reserved shells go into the engine and leave stock; false undoes that.'),
});

const drawerSchema = z.array(drawerLineSchema);

/** What a movement changed, and nothing else: the whole drawer may be large. */
const movedSchema = z.strictObject({
  lines: z.array(drawerLineSchema).describe('The shells that were changed, as they are now.'),
  pieces: z.array(pieceLineSchema).describe('The washers, flanged shells and shims that were.'),
  gone: z.array(idSchema).describe('What was removed from stock.'),
});
export type Moved = z.output<typeof movedSchema>;

export const DRAWER_ENDPOINTS = {
  listDrawer: endpoint({
    method: 'get',
    at: '/api/drawer',
    needs: 'read',
    summary: 'Workshop stock, with shells reserved by engine and total used',
    query: z.object({
      job: jobIdSchema.optional().describe('An engine: the number fitted in it is given too.'),
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
    summary: 'Workshop washers, flanged shells and shims, with those reserved by engine and those used',
    query: z.object({
      job: jobIdSchema.optional().describe('An engine: the number fitted in it is given too.'),
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
    summary: 'Add, remove or change shells and pieces, each from the version it was read at: all or nothing',
    body: drawerMoveSchema,
    answer: movedSchema,
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'id-in-use'],
    topics: ['drawer', 'movements'],
  }),
  drawerHistory: endpoint({
    method: 'get',
    at: '/api/drawer/history',
    needs: 'read',
    summary: 'Stock history, newest first',
    query: z.object({
      line: idSchema.optional().describe('Only entries for this kind of shell.'),
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
    summary: 'Undo a change of stock',
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
    summary: 'Named lists of shells that are bought together',
    answer: z.array(kitViewSchema),
    topics: ['kits'],
    isTagged: true,
  }),
  putKit: endpoint({
    method: 'put',
    at: '/api/drawer/kits/{id}',
    needs: 'drawer',
    summary: 'Save a kit, from the version it was read at',
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
    summary: 'Accept the selections of several engines together, all or none',
    body: acceptTogetherSchema,
    answer: z.array(jobViewSchema),
    problems: ['invalid-request', 'not-found', 'stale-version', 'drawer-short', 'halves-fitted'],
    topics: ['benches', 'engine', 'drawer', 'history'],
  }),
  setFitted: endpoint({
    method: 'post',
    at: '/api/drawer/fitted/{id}',
    needs: 'bench',
    summary: 'Mark an engine’s reserved shells as fitted, or undo that',
    path: z.object({ id: jobIdSchema }),
    body: fittedSchema,
    answer: movedSchema,
    problems: ['invalid-request', 'not-found', 'drawer-short'],
    topics: ['benches', 'engine', 'history', 'drawer', 'movements'],
  }),
} as const;
