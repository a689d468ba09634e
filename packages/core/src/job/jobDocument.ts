import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { versioned } from '../document/versioned.js';
import { engineTypeSchema } from '../engineType/engineType.js';
import { mainLimitsSchema, typeLimitsSchema } from '../engineType/limits.js';
import { isInBand, NOT_IN_BAND, nanometresSchema, sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';
import { crankLayoutSchema } from '../part/crankLayout.js';
import { eachFeature, FEATURES, SLOTS } from '../part/feature.js';
import { materialSchema } from '../part/material.js';
import { READING_MODES } from '../part/reading.js';
import { halfFields } from '../shell/half.js';
import { pieceFields, refinePiece } from '../shell/piece.js';
import { placesSchema } from '../shell/position.js';
import { PART_MEMBERS } from './jobParts.js';
import { JOB_UPGRADES } from './jobUpgrades.js';

/** One kind of half that an engine may take: what it is, how many there are, and whose. */
export const jobShellSchema = halfFields
  .extend({
    stock: z.int('stock is a whole number of shells').min(0, 'stock cannot be below zero').max(9999).nullable(),
    /** The kind of half in the workshop's drawer that it is; null for halves of this engine's own, which `stock` counts. */
    line: z.uuid().toLowerCase().nullable(),
  })
  .refine(isInBand, NOT_IN_BAND);
export type JobShell = z.infer<typeof jobShellSchema>;

/** One half as it was when its choice was accepted: a later change in the drawer does not rewrite it. */
const chosenHalfSchema = z.strictObject({
  shell: z.string(),
  label: z.string(),
  wall: sizeNmSchema,
  band: sizeBandSchema.optional(),
});

/** An engine takes from so many kinds of halves, and of pieces, at most: a drawer of every maker's grades has some hundreds. */
const MOST_KINDS = 1500;

function atMost<Schema extends z.ZodRecord>(schema: Schema, what: string): Schema {
  return schema.refine((kinds) => Object.keys(kinds).length <= MOST_KINDS, `at most ${MOST_KINDS} kinds of ${what}`);
}

/** One kind of washer, flanged half or shim that an engine may take: what it is, how many there are, and whose. */
export const jobPieceSchema = pieceFields
  .extend({
    stock: z.int('stock must be a whole number').min(0, 'stock cannot be below zero').max(9999).nullable(),
    /** The kind of piece in the workshop's drawer that it is; null for pieces of this engine's own, which `stock` counts. */
    line: z.uuid().toLowerCase().nullable(),
  })
  .superRefine(refinePiece);
export type JobPiece = z.output<typeof jobPieceSchema>;

export const acceptedChoiceSchema = z.strictObject({
  at: momentSchema,
  by: z.string(),
  stations: z.record(
    z.string(),
    z.strictObject({
      upper: chosenHalfSchema,
      lower: chosenHalfSchema,
      predicted: nanometresSchema,
      /** Number of the rod on a pin; null at a main. */
      rod: z.int().min(1).nullable().default(null),
    }),
  ),
});
export type AcceptedChoice = z.infer<typeof acceptedChoiceSchema>;

export const aimRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('middle') }),
  z.strictObject({ kind: z.literal('loose-side') }),
  z.strictObject({ kind: z.literal('tight-side') }),
  z.strictObject({ kind: z.literal('per-inch') }),
  z.strictObject({ kind: z.literal('figure'), clearance: nanometresSchema }),
]);

/** What an engine is built for: it decides which side of the limits many fitters aim at. */
export const ENGINE_USES = ['standard', 'hard'] as const;
export type EngineUse = (typeof ENGINE_USES)[number];

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

const celsiusSchema = z.number().min(-60).max(300).nullable();
const slotsSchema = z.array(z.enum(SLOTS)).min(1);

/** A rod is an object of its own: it keeps its cap and its mark, and may go on any pin until the fitter keeps it on one. */
export const rodSchema = z.strictObject({
  mark: z.string().trim().max(20, 'at most 20 characters'),
  /** Pin it is kept on, 1 at the front; null while it may go anywhere. */
  pin: z.int().min(1).max(48).nullable(),
  /** Its bank, where the shaft has two rods on a pin; left out: that of the pin with its number. */
  bank: z.enum(['A', 'B']).optional(),
});

/** What the fitter holds or forbids at one station. */
export const stationWishSchema = z.strictObject({
  upper: z.string().nullable(),
  lower: z.string().nullable(),
  noShells: z.array(z.string()).max(200),
  unmixed: z.boolean(),
});
export type StationWishes = z.infer<typeof stationWishSchema>;
export const NO_WISHES: StationWishes = { upper: null, lower: null, noShells: [], unmixed: false };

/** Who said that the caps are on as they must be for a reading, and when. */
export const capsOnSchema = z.strictObject({ by: personSchema, at: momentSchema });
export type CapsOn = z.output<typeof capsOnSchema>;

/** Stamped rows as they were typed, each with the end that its first mark belongs to. Marks of the rods are on the rods. */
export const markRowSchema = z.strictObject({
  text: z.string().max(200, 'at most 200 characters'),
  first: z.enum(['front', 'rear']),
});

/**
 * One engine on a bench: everything about it except its readings, which are kept one by one. Lists that two people may
 * change at once are records by id, so that their changes merge.
 */
const currentSchema = z.strictObject({
  format: z.literal('fettle.job/5').describe('What this is, and the version it is written in.'),
  name: z.string().trim().min(1, 'enter a name for the engine').max(80, 'at most 80 characters'),
  unit: unitSchema,
  layout: crankLayoutSchema,
  materials: z.strictObject({ block: materialSchema, caps: materialSchema, rods: materialSchema }),
  /** The engine type that this engine's data sheet was copied from. */
  origin: z.strictObject({ type: z.uuid().toLowerCase(), revision: z.int().min(1) }).nullable(),
  /** The data sheet as it was copied: codes, grades, undersizes, torque. What the fitter changed here since is in `limits`. */
  sheet: engineTypeSchema.nullable(),
  limits: typeLimitsSchema,
  /** Limits that hold at single mains instead of those of the sheet, by number of the main. */
  mainLimits: mainLimitsSchema,
  /** Mains that take halves of their own, by number: the name of their place. */
  places: placesSchema,
  measuring: z.strictObject({
    order: z.enum(['along', 'down']),
    slots: z.strictObject(eachFeature(() => slotsSchema)),
    /** How far a reading may be off, nm: a disagreement with a mark within it tells nothing. */
    uncertainty: nanometresSchema
      .refine((value) => value >= 0, 'cannot be below zero')
      .describe('Common practice for a micrometer and a bore gauge in good order: 0.002 mm. A setting.'),
    /** How far a main bore may lie from the line of its neighbours before it is told, nm; null: it is not looked at. */
    alongLine: nanometresSchema
      .refine((value) => value > 0, 'is above zero')
      .nullable()
      .optional()
      .describe('Left out: 0.0005 in, common practice. A setting, no limit of a data sheet.'),
    /** By feature of a housing: who said that its caps are in place and direction, lubricated and torqued as the figure asks. */
    capsOn: z.partialRecord(z.enum(FEATURES), capsOnSchema).optional(),
    /** Size the gauge is zeroed on, for readings typed as deviations. */
    setting: z.strictObject(eachFeature(() => sizeNmSchema.nullable())),
    /** How warm the parts are that are read now, °C; null where nobody takes it: sizes are then taken as they are read. */
    celsius: z.strictObject(eachFeature(() => celsiusSchema)),
    gaugeCelsius: celsiusSchema,
    /** How sizes are read now; null where nobody said. */
    mode: z.strictObject(eachFeature(() => z.enum(READING_MODES).nullable())),
  }),
  rules: jobRulesSchema,
  /** By feature: `mainBore`, `mainJournal`, `pin`. */
  marks: z.partialRecord(z.enum(FEATURES), markRowSchema),
  /** What stations are chosen from: measured sizes, with marks until they are measured, or marks alone. */
  depth: z.enum(['measure', 'codes']),
  /** Whether the rods are fitted in this job as well. */
  withRods: z.boolean(),
  /** What the engine is built for; left out or null: nobody said. */
  use: z.enum(ENGINE_USES).nullable().optional(),
  /** By number; a rod that is left out has no mark and may go anywhere. */
  rods: z.record(z.string().regex(/^[1-9]\d?$/u), rodSchema),
  /** By station. */
  wishes: z.record(z.string().min(1).max(10), stationWishSchema),
  shells: atMost(z.record(z.string().min(1).max(60), jobShellSchema), 'halves'),
  choice: acceptedChoiceSchema.nullable(),
  /** Washers, flanged halves and shims that the engine may take. */
  pieces: atMost(z.record(z.string().min(1).max(60), jobPieceSchema), 'pieces'),
  ...PART_MEMBERS,
  /** When the build sheet was last printed or saved, and by whom; null until then. */
  printed: z.strictObject({ at: momentSchema, by: personSchema }).nullable(),
});

/** The job document, read from whichever version it was written in. */
export const jobDocumentSchema = versioned('fettle.job', JOB_UPGRADES, currentSchema);
export type JobDocument = z.output<typeof currentSchema>;
