import { z } from 'zod';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { sideSchema } from './side.js';

/** The two faces of the thrust main, as one looks along the shaft from its front. */
export const FACES = ['front', 'rear'] as const;
export type Face = (typeof FACES)[number];

/** One kind of piece, and what follows from it. */
interface PieceKindRow {
  /** What it is called in a sentence. */
  readonly word: string;
  /** What its thickness is. */
  readonly sizeName: string;
  /** True if it is made as halves, with an oversize and a coating. */
  readonly hasHalves: boolean;
  /** True if it may be made for one face of the thrust main. */
  readonly hasFace: boolean;
  /** True if leaves may peel off it. */
  readonly hasLeaves: boolean;
}

/** What is put between faces: loose thrust washers, main halves with flanges, ring shims, shims at a joint or under a cap. */
const TABLE = {
  washer: { word: 'washer', sizeName: 'Thickness', hasHalves: true, hasFace: true, hasLeaves: false },
  flanged: {
    word: 'flanged shell',
    sizeName: 'Width over the flanges',
    hasHalves: true,
    hasFace: false,
    hasLeaves: false,
  },
  ring: { word: 'ring', sizeName: 'Thickness', hasHalves: false, hasFace: false, hasLeaves: false },
  shim: { word: 'shim', sizeName: 'Thickness', hasHalves: false, hasFace: false, hasLeaves: true },
} as const satisfies Readonly<Record<string, PieceKindRow>>;
export type PieceKind = keyof typeof TABLE;

/** Every kind of piece. */
export const PIECE_KINDS = Object.keys(TABLE) as [PieceKind, ...PieceKind[]];

/** Everything that follows from which kind of piece it is. */
export const PIECE_TABLE: Readonly<Record<PieceKind, PieceKindRow>> = TABLE;

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
  const { word, hasHalves, hasFace, hasLeaves } = PIECE_TABLE[kind];
  if (hasHalves && half === undefined) return ['half', 'enter which shell it is: upper, lower or either'];
  if (!hasHalves && half !== undefined) return ['half', `a ${word} has no halves; leave it out`];
  if (!hasFace && face !== undefined) return ['face', 'only a washer is made for a face; leave it out'];
  if (!hasLeaves && leaf !== undefined) return ['leaf', 'only a shim has leaves; leave it out'];
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

/** What a piece is called on screen, in a plan and in the history. */
export function pieceLabel({ kind, name, half, face, oversize }: Omit<Piece, 'thickness'>): string {
  const made = [face, half].filter((one) => one !== undefined).join(' ');
  return [name, PIECE_TABLE[kind].word, made, oversize ?? ''].filter((word) => word !== '').join(' ');
}
