import { z } from 'zod';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { sideSchema } from './side.js';

/** The two faces of the thrust main, as one looks along the shaft from its front. */
export const FACES = ['front', 'rear'] as const;
export type Face = (typeof FACES)[number];

/** What is put between faces: loose thrust washers, main halves with flanges, ring shims, shims at a joint or under a cap. */
export const PIECE_KINDS = ['washer', 'flanged', 'ring', 'shim'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** Whether a kind of piece is made as halves. */
export function hasHalves(kind: PieceKind): boolean {
  return kind === 'washer' || kind === 'flanged';
}

/** What tells a washer, a flanged half or a shim, wherever it lies. */
export const pieceFields = z.strictObject({
  kind: z.enum(PIECE_KINDS),
  name: z.string().trim().min(1, 'enter a name for the piece').max(40).describe('What it is called or marked.'),
  thickness: sizeNmSchema.describe('Thickness, nm; for a flanged shell, its width over the flanges.'),
  half: sideSchema.optional().describe('Side of a washer or a flanged shell.'),
  face: z.enum(FACES).optional().describe('For a washer: face it is made for; omitted: both.'),
  oversize: z.string().trim().min(1).max(20).optional().describe('Oversize, such as +0.10; omitted: standard.'),
  coating: z.string().trim().min(1).max(40).optional().describe('Coated running face; never dressed.'),
  leaf: sizeNmSchema.optional().describe('Of a laminated shim: the thickness of one leaf that peels off.'),
});
export type Piece = z.output<typeof pieceFields>;

/** What is wrong with how the fields of a piece go together; null when nothing is. */
function misfit(piece: Pick<Piece, 'kind' | 'half' | 'face' | 'leaf' | 'thickness'>): [keyof Piece, string] | null {
  const { kind, half, face, leaf, thickness } = piece;
  if (hasHalves(kind) && half === undefined) return ['half', 'enter which shell it is: upper, lower or either'];
  if (!hasHalves(kind) && half !== undefined) return ['half', 'a ring or a shim has no halves; leave it out'];
  if (kind !== 'washer' && face !== undefined) return ['face', 'only a washer is made for a face; leave it out'];
  if (kind !== 'shim' && leaf !== undefined) return ['leaf', 'only a shim has leaves; leave it out'];
  if (leaf !== undefined && leaf >= thickness) return ['leaf', 'a leaf is thinner than the whole shim'];
  return null;
}

/** Refuses a piece whose fields do not go together, at the field that is wrong. */
export function refinePiece(piece: Parameters<typeof misfit>[0], context: z.RefinementCtx): void {
  const found = misfit(piece);
  if (found) context.addIssue({ code: 'custom', path: [found[0]], message: found[1] });
}

/** The fields that tell a piece, in the order of a table. */
const PIECE_FIELDS = Object.keys(pieceFields.shape) as (keyof Piece)[];

/** What tells a piece, taken out of a record that says more of it. */
export function pieceOf(from: Piece): Piece {
  return Object.fromEntries(
    PIECE_FIELDS.flatMap((field) => (from[field] === undefined ? [] : [[field, from[field]]])),
  ) as Piece;
}

const KIND_WORDS: Readonly<Record<PieceKind, string>> = {
  washer: 'washer',
  flanged: 'flanged shell',
  ring: 'ring',
  shim: 'shim',
};

/** What a kind of piece is called in a sentence. */
export function pieceKindWord(kind: PieceKind): string {
  return KIND_WORDS[kind];
}

/** What a piece is called on screen, in a plan and in the history. */
export function pieceLabel({ kind, name, half, face, oversize }: Omit<Piece, 'thickness'>): string {
  const made = [face, half].filter((one) => one !== undefined).join(' ');
  return [name, KIND_WORDS[kind], made, oversize ?? ''].filter((word) => word !== '').join(' ');
}
