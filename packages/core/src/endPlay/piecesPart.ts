import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { jobPieceSchema } from '../shell/jobPiece.js';
import { atMostKinds } from '../shell/mostKinds.js';

/** Washers, flanged halves and shims that the engine may take. */
export const piecesPart = documentPart({
  members: { pieces: atMostKinds(z.record(z.string().min(1).max(60), jobPieceSchema), 'pieces') },
  since: 2,
  blank: () => ({ pieces: {} }),
});
export type PiecesMembers = PartValues<typeof piecesPart>;
