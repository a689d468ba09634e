import { z } from 'zod';
import { type DocumentFault, faultsOf } from '../../document/fault.js';
import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { unitSchema } from '../../measure/unit.js';
import { FACES } from '../../shell/piece.js';
import { sideSchema } from '../../shell/side.js';

/** Lengths in a file are at most 10 000 of their unit, so that twice their sums stay exact as whole half nanometres. */
const lengthSchema = z.number().min(-10_000).max(10_000);
const sizeSchema = z.number().positive().max(10_000);
const gapSchema = z.number().min(0).max(10_000);
const penaltySchema = z.number().min(0).max(1e9);

const WASHER_HALVES = ['upper', 'lower'] as const;

/** Maximum kinds of piece tried at every place, in pairs. */
const MOST_PIECES = 500;

const pieceFields = {
  id: z.string().min(1).max(200).describe('Unique among all pieces.'),
  thickness: sizeSchema.describe('Thickness; of a flanged shell its width over the flanges.'),
  stock: z.int().min(0).max(1_000_000_000).nullable().describe('Pieces on hand; null: unlimited.'),
};
const plainPiece = z.strictObject(pieceFields);
const jointPiece = plainPiece.extend({
  of: z
    .string()
    .min(1)
    .max(200)
    .optional()
    .describe(
      'Source of the piece: pieces with the same source share one stock, such as a laminated shim at each thickness.',
    ),
});
const flangedPiece = z.strictObject({ ...pieceFields, half: sideSchema });
const washerPiece = flangedPiece.extend({
  face: z.enum(FACES).optional().describe('Face it is made for; omitted: both.'),
});

const common = {
  format: z.literal('fettle.shim-request/1'),
  unit: unitSchema.describe('Unit of every length, those in rules too.'),
  low: lengthSchema.describe('Least result allowed.'),
  high: lengthSchema.describe('Largest result allowed.'),
  aim: lengthSchema.describe('Target, within low and high.'),
};
const tightWeight = z.number().min(0).max(1000).default(2).describe('Weight of a shortfall below target.');
const alikeWithin = gapSchema
  .optional()
  .describe('How far two that lie together may differ; 0.005 mm, whatever the unit, where it is left out.');
const halves = z
  .array(z.enum(WASHER_HALVES))
  .min(1, 'give at least one shell')
  .refine((list) => new Set(list).size === list.length, 'give each shell once')
  .describe('Which shells there are.');

const ringShims = z.strictObject({
  ...common,
  kind: z.literal('ring-shims'),
  gap: lengthSchema.describe('End play without shims.'),
  settle: lengthSchema.default(0).describe('What the final torque squeezes out.'),
  counts: z
    .array(z.int().min(0).max(100))
    .min(1, 'enter the number of rings')
    .max(20)
    .describe('Numbers of rings allowed, best first.'),
  pieces: z.array(plainPiece).max(2_000),
  rules: z
    .strictObject({
      tightWeight,
      countPenalty: penaltySchema.default(25).describe('Cost of each step down the list of counts, µm².'),
    })
    .prefault({}),
});

const thrustWashers = z.strictObject({
  ...common,
  kind: z.literal('thrust-washers'),
  reading: lengthSchema.describe('End play with the pieces now fitted.'),
  fitted: z.strictObject({ front: gapSchema, rear: gapSchema }).describe('Thickness fitted at each face now.'),
  halves,
  alikeWithin,
  pieces: z.array(washerPiece).max(MOST_PIECES),
  rules: z
    .strictObject({
      tightWeight,
      alikeWithin,
      maxShift: gapSchema.nullable().default(null).describe('Maximum shift of the shaft either way; null: any.'),
      shiftPenalty: penaltySchema.default(0.25).describe('Times the square of the shift in µm.'),
    })
    .prefault({}),
});

const flangedShell = z.strictObject({
  ...common,
  kind: z.literal('flanged-shell'),
  reading: lengthSchema.describe('End play with the pieces now fitted.'),
  fitted: z.strictObject({ width: gapSchema }).describe('Width over the flanges fitted now.'),
  halves,
  alikeWithin,
  pieces: z.array(flangedPiece).max(MOST_PIECES),
  rules: z.strictObject({ tightWeight, alikeWithin }).prefault({}),
});

const crushSide = z
  .strictObject({
    go: lengthSchema.describe('Feeler that goes in with that side slackened.'),
    noGo: lengthSchema.describe('Feeler that does not.'),
    shim: gapSchema.describe('Shim there now.'),
  })
  .refine(({ go, noGo }) => go <= noGo, { path: ['go'], error: 'go is above no-go; swap them' });

const splitLine = z.strictObject({
  ...common,
  kind: z.literal('split-line'),
  sides: z.strictObject({ left: crushSide, right: crushSide }),
  pieces: z.array(jointPiece).max(MOST_PIECES),
  rules: z
    .strictObject({
      tightWeight,
      unevenPenalty: penaltySchema.default(1).describe('Times the square of the difference of the two changes in µm.'),
    })
    .prefault({}),
});

const saddleShims = z.strictObject({
  ...common,
  kind: z.literal('saddle-shims'),
  clearance: lengthSchema.describe('Vertical clearance with the pieces now fitted.'),
  fitted: z.strictObject({ left: gapSchema, right: gapSchema }).describe('Shim fitted at each side now.'),
  alikeWithin,
  pieces: z.array(jointPiece).max(MOST_PIECES),
  rules: z.strictObject({ tightWeight, alikeWithin }).prefault({}),
});

/** A schema a kind of request. A new kind is a line here, and its row in `fit/shims/shimKinds.ts`. */
const KINDS = {
  'ring-shims': ringShims,
  'thrust-washers': thrustWashers,
  'flanged-shell': flangedShell,
  'split-line': splitLine,
  'saddle-shims': saddleShims,
} as const;
export type ShimKind = keyof typeof KINDS;
/** The schemas as a list that names each kind. */
type OneOfEach = [(typeof KINDS)[ShimKind], ...(typeof KINDS)[ShimKind][]];
export const shimKindSchema = z.enum(Object.keys(KINDS) as [ShimKind, ...ShimKind[]]);

/**
 * What brings a measured gap to its aim, from the pieces on hand: rings, thrust washers, flanged shells, shims at the joint or under a
 * cap. An open format, described in docs/formats.
 */
export const shimRequestSchema = z
  .discriminatedUnion('kind', Object.values(KINDS) as unknown as OneOfEach)
  .superRefine((request, context) => {
    const nm = (value: number) => lengthOfNumber(value, request.unit);
    const { low, aim, high } = request;
    // What is out of range was told already, and is no length.
    const areLengths = [low, aim, high].every((value) => lengthSchema.safeParse(value).success);
    if (areLengths && nm(low) > nm(aim)) {
      context.addIssue({ code: 'custom', path: ['aim'], message: 'the target is below the low limit' });
    }
    if (areLengths && nm(aim) > nm(high)) {
      context.addIssue({ code: 'custom', path: ['aim'], message: 'the target is above the high limit' });
    }
    const first = new Map<string, number>();
    const shared = new Map<string, number | null>();
    request.pieces.forEach((piece, at) => {
      const { id, stock } = piece;
      const of = 'of' in piece ? (piece as { of?: string }).of : undefined;
      if (of !== undefined && shared.has(of) && shared.get(of) !== stock) {
        const message = `stock is ${stock} here and ${shared.get(of)} for another piece of “${of}”; they share one stock`;
        context.addIssue({ code: 'custom', path: ['pieces', at, 'stock'], message });
      }
      if (of !== undefined) shared.set(of, stock);
      const earlier = first.get(id);
      if (earlier === undefined) first.set(id, at);
      else {
        const message = `“${id}” is already the id of pieces[${earlier}]; ids must be unique`;
        context.addIssue({ code: 'custom', path: ['pieces', at, 'id'], message });
      }
    });
    if (!('alikeWithin' in request) || !('alikeWithin' in request.rules)) return;
    const { alikeWithin: one, rules } = request;
    if (one !== undefined && rules.alikeWithin !== undefined && one !== rules.alikeWithin) {
      context.addIssue({
        code: 'custom',
        path: ['alikeWithin'],
        message: `alikeWithin is ${one} here and ${rules.alikeWithin} in rules; give it once`,
      });
    }
  });

/** A shim request as written in a file: optional fields may be missing. */
export type ShimRequestInput = z.input<typeof shimRequestSchema>;
/** A shim request as read: defaults filled in. */
export type ShimRequest = z.output<typeof shimRequestSchema>;

/**
 * Reads a shim request from parsed JSON.
 *
 * @returns the request with its defaults filled in, or every fault with its path
 */
export function readShimRequest(
  json: unknown,
): { ok: true; request: ShimRequest } | { ok: false; faults: DocumentFault[] } {
  const parsed = shimRequestSchema.safeParse(json);
  return parsed.success ? { ok: true, request: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
