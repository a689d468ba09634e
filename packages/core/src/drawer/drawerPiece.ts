import { z } from 'zod';
import { shellLabel } from '../shell/half.js';
import { pieceFields, pieceLabel, refinePiece } from '../shell/piece.js';
import { type DrawerHalf, drawerHalfSchema, reservationSchema, shelfFields } from './workshopDrawer.js';

/** One kind of washer, flanged half or shim in the workshop's drawer. */
export const drawerPieceSchema = pieceFields.extend(shelfFields.shape).superRefine(refinePiece);
export type DrawerPiece = z.output<typeof drawerPieceSchema>;

/** One kind of piece in the drawer, with who has reserved how many. */
export const pieceLineSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  version: z.int().min(1),
  piece: drawerPieceSchema,
  reservations: z.array(reservationSchema),
  used: z.int().min(0).describe('How many of it were fitted into engines so far.'),
  fittedHere: z
    .int()
    .min(0)
    .describe('How many of these are fitted in the engine asked about; 0: none, or no engine given.'),
});
export type PieceLine = z.output<typeof pieceLineSchema>;

/** Anything that lies in the workshop's drawer: a half shell, or a washer, a flanged half or a shim. */
export const drawerItemSchema = z.union([drawerHalfSchema, drawerPieceSchema]);
export type DrawerItem = DrawerHalf | DrawerPiece;

/** True if what lies in the drawer is a piece; a half shell otherwise. */
export function isPiece(item: DrawerItem): item is DrawerPiece {
  return 'kind' in item;
}

/** What lies in the drawer is called on screen and in messages. */
export function drawerItemLabel(item: DrawerItem): string {
  return isPiece(item) ? pieceLabel(item) : shellLabel(item);
}
