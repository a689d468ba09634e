import { z } from 'zod';
import { unitSchema } from '../../measure/unit.js';
import { familySchema } from '../../part/family.js';
import { sideSchema } from '../../shell/side.js';

export const remedySchema = z.strictObject({
  kind: z
    .enum(['release', 'move-rod', 'buy', 'wall', 'rule', 'regrind', 'limit'])
    .describe(
      'remove a lock; unlock a rod; get shells; get another wall; change a rule; grind a journal; change a limit',
    ),
  message: z.string(),
  stations: z.array(z.string()),
  shells: z
    .array(z.strictObject({ id: z.string(), count: z.int() }))
    .describe('Shells to get, of those in the request.'),
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
    .describe('Shells to get that are not in the request; add them to it.'),
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
    .describe('Stations in the conflict; without any one of them the others fit, as far as this conflict goes.'),
  minimal: z
    .boolean()
    .optional()
    .describe('True if the others were shown to fit without any one of the stations, as far as this conflict goes.'),
  shells: z.array(z.string()).describe('Shells they compete for, if any.'),
  message: z.string().describe('What is wrong and by how much.'),
  nearest: z
    .strictObject({
      housing: z.string(),
      upper: z.string(),
      lower: z.string(),
      clearance: z.number(),
      low: z.number(),
      high: z.number(),
      by: z.number().describe('Distance outside the limits; negative: too tight, positive: too loose.'),
    })
    .optional()
    .describe('The pair that comes nearest to the limits of a station that none serves.'),
  missing: z
    .array(z.strictObject({ id: z.string(), count: z.int() }))
    .optional()
    .describe('The fewest shells that the stations lack, if found.'),
  leftOut: z
    .string()
    .optional()
    .describe('What the time, or the work that an explanation may take, was too short for.'),
  spread: z
    .strictObject({
      family: familySchema,
      limit: z.number(),
      least: z.number().nullable().describe('Smallest spread limit that works; null: not found.'),
    })
    .optional()
    .describe('Spread of the stations, and the limit on it.'),
  housings: z.array(z.string()).optional().describe('Housings that fit any of the stations.'),
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
  deviation: z.number().describe('Clearance less target.'),
  mixed: z.boolean().describe('True if the two walls differ.'),
  endPlay: z.number().optional().describe('End play with these shells, if their flanges set it.'),
  known: z
    .strictObject({
      tightest: z.number(),
      loosest: z.number(),
      inside: z.number().min(0).max(1).describe('Chance that the clearance is inside the limits.'),
    })
    .optional()
    .describe(
      'Uncertainty of the clearance where a size is known by its band only; sizes taken as even over their bands.',
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
      'What one more of a shell would save, µm²: solved for, or, where many engines share stock, the Lagrange price: the rate at which the bound falls.',
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
