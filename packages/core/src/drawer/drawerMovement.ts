import { z } from 'zod';
import { momentSchema } from '../measure/moment.js';
import { drawerItemSchema } from './drawerPiece.js';

/** What was done to the drawer; `change` is any other edit. */
export const MOVEMENTS = [
  'receive',
  'use',
  'return',
  'count',
  'number',
  'change',
  'add',
  'remove',
  'import',
  'fitted',
  'unfitted',
  'undo',
] as const;

/** One thing that was done to the drawer, with what each kind of half was before and after it. */
export const drawerMovementSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  at: momentSchema,
  by: z.string(),
  kind: z.enum(MOVEMENTS),
  note: z.string(),
  changes: z.array(
    z.strictObject({
      line: z.uuid().toLowerCase(),
      before: drawerItemSchema.nullable().describe('Null: it did not exist.'),
      after: drawerItemSchema.nullable().describe('Null: removed.'),
    }),
  ),
  undone: z.boolean().describe('True if it was undone.'),
});
export type DrawerMovement = z.infer<typeof drawerMovementSchema>;
