import { z } from 'zod';
import { unitSchema } from '../../measure/unit.js';
import { familySchema } from '../../part/family.js';
import { sideSchema } from '../../shell/side.js';

export const remedySchema = z.strictObject({
  kind: z
    .enum(['release', 'move-rod', 'buy', 'wall', 'rule', 'regrind', 'limit'])
    .describe(
      'let a held choice go; let a rod leave its pin; get halves; get another wall; a rule; grind a journal; a limit',
    ),
  message: z.string(),
  stations: z.array(z.string()),
  shells: z
    .array(z.strictObject({ id: z.string(), count: z.int() }))
    .describe('Halves to get, of those in the request.'),
  newShells: z
    .array(
      z.strictObject({
        id: z.string(),
        family: familySchema,
        series: z.string(),
        half: sideSchema,
        wall: z.number(),
        width: z.number().optional().describe('Width over the flanges.'),
        undersize: z.string(),
        positions: z.array(z.string()).optional(),
        stock: z.int(),
      }),
    )
    .optional()
    .describe('Halves to get that are not in the request: shells to add to it.'),
  housings: z.array(z.string()).optional().describe('Housings that leave their station.'),
  rules: z
    .strictObject({
      mixedHalves: z.boolean(),
      acrossSeries: z.boolean(),
      maxWallStep: z.number(),
      thinnerHalf: z.enum(['either', 'upper', 'lower']),
      maxSpread: z.partialRecord(familySchema, z.number()),
    })
    .partial()
    .optional()
    .describe('Rules to change.'),
  journal: z.number().optional().describe('Size that the journal of the station is ground to.'),
  limit: z
    .strictObject({ side: z.enum(['low', 'high']), value: z.number() })
    .optional()
    .describe('The limit of the station that is moved, and where to.'),
});
export type FitRemedy = z.infer<typeof remedySchema>;

export const conflictSchema = z.strictObject({
  kind: z.enum(['no-pair-in-range', 'stock-short', 'spread', 'matching', 'rules']),
  stations: z
    .array(z.string())
    .describe(
      'The stations concerned; dropping any one of a group would let the rest fit, as far as this conflict goes.',
    ),
  minimal: z
    .boolean()
    .optional()
    .describe('Whether the rest was shown to fit without any one of the stations, as far as this conflict goes.'),
  shells: z.array(z.string()).describe('The shells they compete for, where there are any.'),
  message: z.string().describe('What is wrong and by how much.'),
  nearest: z
    .strictObject({
      housing: z.string(),
      upper: z.string(),
      lower: z.string(),
      clearance: z.number(),
      low: z.number(),
      high: z.number(),
      by: z.number().describe('How far outside the limits: below zero too tight, above zero too loose.'),
    })
    .optional()
    .describe('The pair that comes nearest to the limits of a station that none serves.'),
  missing: z
    .array(z.strictObject({ id: z.string(), count: z.int() }))
    .optional()
    .describe('The fewest halves that the stations lack, where that was found.'),
  leftOut: z
    .string()
    .optional()
    .describe('What the time, or the work that an explanation may take, was too short for.'),
  spread: z
    .strictObject({
      family: familySchema,
      limit: z.number(),
      least: z.number().nullable().describe('The least spread that would do; null where it was not found.'),
    })
    .optional()
    .describe('How far apart the stations are, against how far they may be.'),
  housings: z.array(z.string()).optional().describe('The housings that can serve any of the stations.'),
  remedy: z.string().describe('What would put it right.'),
  remedies: z
    .array(remedySchema)
    .optional()
    .describe(
      'Single changes after which everything fits: each was applied to the whole request and solved. Cheapest first.',
    ),
  partRemedies: z
    .array(remedySchema)
    .optional()
    .describe(
      'Where no single change makes everything fit: changes after which the stations concerned fit, while other conflicts remain. Each was solved.',
    ),
});
export type FitConflict = z.infer<typeof conflictSchema>;

export const plannedStationSchema = z.strictObject({
  id: z.string(),
  housing: z.string(),
  upper: z.string(),
  lower: z.string(),
  clearance: z.number().describe('Bore − journal − walls + offset.'),
  deviation: z.number().describe('Clearance − aim.'),
  mixed: z.boolean().describe('Whether the two walls differ.'),
  endPlay: z.number().optional().describe('End play with these halves, where their flanges set it.'),
  known: z
    .strictObject({
      tightest: z.number(),
      loosest: z.number(),
      inside: z.number().min(0).max(1).describe('Chance that the clearance is inside the limits.'),
    })
    .optional()
    .describe(
      'How well the clearance is known, where a size is only known by its band; each size evenly over its band.',
    ),
});
export type PlannedStation = z.infer<typeof plannedStationSchema>;

/** The answer to a fit request. */
export const fitPlanSchema = z.strictObject({
  format: z.literal('fettle.fit-plan/1'),
  unit: unitSchema,
  status: z
    .enum(['optimal', 'feasible', 'infeasible', 'stopped'])
    .describe(
      'optimal: proven least cost; feasible: stopped by a limit; infeasible: proven that nothing fits; stopped: the limit came before there was a plan or a proof.',
    ),
  cost: z.number().nullable().describe('µm²; null when infeasible or stopped.'),
  bound: z.number().nullable().describe('Proven lower bound of the cost of any plan, µm²; null when infeasible.'),
  stations: z.array(plannedStationSchema),
  shellsUsed: z.array(z.strictObject({ id: z.string(), count: z.int() })),
  spread: z
    .array(z.strictObject({ engine: z.string(), family: familySchema, value: z.number() }))
    .describe('Largest minus smallest deviation per engine and family.'),
  conflicts: z.array(conflictSchema),
  prices: z
    .array(z.strictObject({ id: z.string(), price: z.number() }))
    .optional()
    .describe(
      'What one more half of a shell would save, µm²: solved for, or, where many engines share a drawer, the Lagrange price: the rate at which the bound falls.',
    ),
});
export type FitPlan = z.infer<typeof fitPlanSchema>;

/** What stands in an NDJSON answer for a line that was no valid request. */
export const fitErrorSchema = z.strictObject({
  format: z.literal('fettle.error/1'),
  line: z.int().min(1),
  errors: z.array(z.strictObject({ path: z.string(), message: z.string() })),
});
export type FitError = z.infer<typeof fitErrorSchema>;
