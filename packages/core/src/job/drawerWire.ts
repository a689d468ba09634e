import { z } from 'zod';
import { drawerHalfSchema, kitSchema } from '../shell/workshopDrawer.js';
import { acceptedChoiceSchema } from './jobDocument.js';
import { personSchema } from './jobWire.js';

/** Something done to the drawer, all of it or nothing. */
export const drawerMoveSchema = z.strictObject({
  by: personSchema,
  kind: z.enum(['receive', 'use', 'return', 'count', 'number', 'change', 'add', 'remove', 'import']),
  note: z.string().trim().max(300).default(''),
  changes: z
    .array(
      z.strictObject({
        id: z.uuid().toLowerCase(),
        version: z.int().min(0).describe('The version the change was made from; 0 for a new kind of half.'),
        half: drawerHalfSchema.nullable().describe('Null takes it out of the drawer.'),
      }),
    )
    .min(1)
    .max(2000),
});
export type DrawerMove = z.infer<typeof drawerMoveSchema>;

export const undoSchema = z.strictObject({ by: personSchema });

export const kitViewSchema = z.strictObject({ id: z.uuid().toLowerCase(), version: z.int().min(1), kit: kitSchema });
export type KitView = z.infer<typeof kitViewSchema>;
export const kitPutSchema = z.strictObject({ version: z.int().min(0), by: personSchema, kit: kitSchema });

/** Choices of several engines, accepted together or not at all. */
export const acceptTogetherSchema = z.strictObject({
  by: personSchema,
  jobs: z
    .array(z.strictObject({ id: z.uuid().toLowerCase(), version: z.int().min(1), choice: acceptedChoiceSchema }))
    .min(1)
    .max(5000),
});

export const fittedSchema = z.strictObject({
  by: personSchema,
  fitted: z
    .boolean()
    .describe('true: the reserved halves go into the engine and leave the drawer; false takes that back.'),
});
