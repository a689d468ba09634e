import { z } from 'zod';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import type { EngineStart } from '../engineType/enginePart.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import type { Material } from '../part/material.js';
import { acceptedChoiceSchema } from '../shell/acceptedChoice.js';

export const aimRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('middle') }),
  z.strictObject({ kind: z.literal('loose-side') }),
  z.strictObject({ kind: z.literal('tight-side') }),
  z.strictObject({ kind: z.literal('per-inch') }),
  z.strictObject({ kind: z.literal('figure'), clearance: nanometresSchema }),
]);

export const jobRulesSchema = z.strictObject({
  aim: aimRuleSchema,
  rodAim: aimRuleSchema,
  /** Added to the aim of single stations. */
  extras: z.record(z.string(), nanometresSchema),
  mixedHalves: z.boolean(),
  acrossSeries: z.boolean(),
  maxWallStep: nanometresSchema.refine((value) => value >= 0, 'cannot be below zero'),
  thinnerHalf: z.enum(['either', 'upper', 'lower']),
  maxSpread: nanometresSchema.refine((value) => value >= 0, 'cannot be below zero').nullable(),
  maxRodSpread: nanometresSchema.refine((value) => value >= 0, 'cannot be below zero').nullable(),
  /** Mains among which the largest spread holds, by number; left out or null: all. */
  spreadMains: z.array(z.int().min(1).max(99)).min(2).max(99).nullable().optional(),
  tightWeight: z.number().min(0).max(1000),
  mixedPenalty: z.number().min(0).max(1e9),
  closeFraction: z.number().min(0).max(0.5),
  /** True if rods may change banks; left out: they stay on their own. */
  rodsAcrossBanks: z.boolean().optional(),
  /** The furthest a remedy may move a limit, as a share of the range between the limits; left out: a half. */
  limitShare: z.number().min(0).max(10).optional(),
  /** Least chance that a station is inside its limits; null where the choice does not ask for it. */
  leastChance: z.number().min(0.5).max(0.999).nullable(),
});
export type JobRules = z.infer<typeof jobRulesSchema>;

/** What the fitter holds or forbids at one station. */
export const stationWishSchema = z.strictObject({
  upper: z.string().nullable(),
  lower: z.string().nullable(),
  noShells: z.array(z.string()).max(200),
  unmixed: z.boolean(),
});
export type StationWishes = z.infer<typeof stationWishSchema>;
export const NO_WISHES: StationWishes = { upper: null, lower: null, noShells: [], unmixed: false };

/**
 * Where the thinner half of a mixed pair goes by default: the cap side when an aluminium block has iron or steel caps, for
 * the block opens more when hot; no matter otherwise. Common practice; schools differ, so it is a setting.
 *
 * @example usualThinnerHalf('aluminium', 'iron') // 'lower'
 */
export function usualThinnerHalf(block: Material, caps: Material): JobRules['thinnerHalf'] {
  return block === 'aluminium' && (caps === 'iron' || caps === 'steel') ? 'lower' : 'either';
}

/** 0.013 mm in a millimetre job, 0.0005 in in an inch job. Common practice. */
const USUAL_WALL_STEP: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(13_000), in: nanometres(12_700) };

/** By which rules halves are selected, what is locked, and what was accepted. */
export const selectionPart = documentPart({
  members: {
    rules: jobRulesSchema,
    /** By station. */
    wishes: z.record(z.string().min(1).max(10), stationWishSchema),
    choice: acceptedChoiceSchema.nullable(),
  },
  since: 1,
  blank: ({ unit, materials }: EngineStart) => ({
    rules: {
      aim: { kind: 'middle' as const },
      rodAim: { kind: 'middle' as const },
      extras: {},
      mixedHalves: true,
      acrossSeries: false,
      maxWallStep: USUAL_WALL_STEP[unit],
      thinnerHalf: usualThinnerHalf(materials.block, materials.caps),
      maxSpread: null,
      maxRodSpread: null,
      tightWeight: 2,
      mixedPenalty: 4,
      closeFraction: 0.1,
      leastChance: null,
    },
    wishes: {},
    choice: null,
  }),
  upgrades: {
    /** From before a chance could be asked for. */
    3: ({ rules }) => ({ rules: { leastChance: null, ...storedRecord(rules) } }),
  },
});
export type SelectionMembers = PartValues<typeof selectionPart>;
