import { z } from 'zod';
import { unitSchema } from '../../measure/unit.js';
import { shimPlaceSchema } from './shimPlace.js';
import { shimKindSchema } from './shimRequest.js';

export const shimRemedySchema = z.union([
  z
    .strictObject({ kind: z.literal('piece'), place: shimPlaceSchema, from: z.number(), to: z.number() })
    .describe('One more piece between these thicknesses would work there.'),
  z
    .strictObject({ kind: z.literal('dress'), place: shimPlaceSchema, id: z.string(), by: z.number() })
    .describe(
      'Taking this much off that piece, on hand, would work; from washers and flanges, the same from each face.',
    ),
  z.strictObject({ kind: z.literal('limit'), low: z.number() }).describe('This low limit would work.'),
  z.strictObject({ kind: z.literal('limit'), high: z.number() }).describe('This high limit would work.'),
]);
export type ShimRemedy = z.infer<typeof shimRemedySchema>;

export const shimConflictSchema = z.strictObject({
  kind: z
    .enum(['short', 'not-alike', 'shift', 'not-square', 'none'])
    .describe(
      'short: no allowed choice is in limits; not-alike: none whose pieces are alike; shift: the shaft would move too far; not-square: the feeler ranges of the two sides do not overlap; none: no piece for a position.',
    ),
  message: z.string().describe('What is wrong and by how much.'),
  remedies: z.array(shimRemedySchema).describe('Single changes after which there is a plan: each was solved for.'),
  places: z.array(shimPlaceSchema).optional().describe('Positions concerned; omitted: all.'),
  below: z.number().nullable().optional().describe('Nearest result below the limits; null: none.'),
  above: z.number().nullable().optional().describe('Nearest result above the limits; null: none.'),
  faces: z
    .array(
      z.strictObject({
        face: z.enum(['front', 'rear', 'flanges']),
        from: z.number().optional(),
        to: z.number().optional(),
        by: z.number().optional(),
      }),
    )
    .optional()
    .describe(
      'The same for both washers of a face: new pieces of a thickness in this range, or the pieces on hand dressed by this much each. Solved for.',
    ),
});
export type ShimConflict = z.infer<typeof shimConflictSchema>;

/** The answer to a shim request. */
export const shimPlanSchema = z.strictObject({
  format: z.literal('fettle.shim-plan/1'),
  unit: unitSchema,
  kind: shimKindSchema,
  status: z
    .enum(['optimal', 'infeasible'])
    .describe('optimal: proven least cost; infeasible: proven that nothing fits.'),
  cost: z.number().nullable().describe('µm²; null when infeasible.'),
  result: z.number().nullable().describe('What will be measured afterwards; null when infeasible.'),
  shift: z.number().describe('How far the shaft moves forward; 0 where the kind has none.'),
  chosen: z.array(z.strictObject({ place: shimPlaceSchema, id: z.string(), count: z.int().min(1) })),
  conflicts: z.array(shimConflictSchema),
});
export type ShimPlan = z.infer<typeof shimPlanSchema>;
