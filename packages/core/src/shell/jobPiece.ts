import { z } from 'zod';
import { pieceFields, refinePiece } from './piece.js';

/** One kind of washer, flanged half or shim that an engine may take: what it is, how many there are, and whose. */
export const jobPieceSchema = pieceFields
  .extend({
    stock: z.int('stock must be a whole number').min(0, 'stock cannot be below zero').max(9999).nullable(),
    /** The kind of piece in the workshop's drawer that it is; null for pieces of this engine's own, which `stock` counts. */
    line: z.uuid().toLowerCase().nullable(),
  })
  .superRefine(refinePiece);
export type JobPiece = z.output<typeof jobPieceSchema>;
