import { z } from 'zod';
import { type Limit, limitSchema } from '../measure/lengthSchema.js';
import { type ClearanceKey, FAMILIES, FAMILY_TABLE, type Family } from '../part/family.js';
import { FEATURE_TABLE, FEATURES, type Feature, featuresOfFamilies } from '../part/feature.js';

/** Limits that are not those of a measured size, nor of a clearance, by what they are of. */
const MORE = {
  outOfRound: { name: 'Out-of-round of journals and pins', word: 'out-of-round' },
  taper: { name: 'Taper of journals and pins', word: 'taper' },
  boreOutOfRound: { name: 'Out-of-round of bores and big ends', word: 'out-of-round of bores' },
  boreTaper: { name: 'Taper of bores and big ends', word: 'taper of bores' },
  endPlay: { name: 'End play', word: 'end play' },
  crush: { name: 'Crush of the shells', word: 'crush' },
  mainLine: { name: 'Straightness of the line of mains', word: 'line of the mains' },
  mainNeighbours: { name: 'A main bore off its neighbours', word: 'main bore off its neighbours' },
  runout: { name: 'Runout of the shaft', word: 'runout' },
  flangeRunout: { name: 'Runout of the flange', word: 'runout of the flange' },
} as const;

/** Names a limit of a data sheet: a measured feature, or one of those that are not of a size. */
export type LimitKey = Feature | ClearanceKey | keyof typeof MORE;

/** Limits that hold for the shape of journals, pins and bores, or for the shaft as a whole; not needed to choose shells. */
export const CHECKED_LIMITS = Object.keys(MORE) as readonly (keyof typeof MORE)[];

/** What a family needs: its sizes, then its oil clearance. */
export function limitsOfFamily(family: Family): LimitKey[] {
  return [...featuresOfFamilies([family]), FAMILY_TABLE[family].clearance.key];
}

/** What a data sheet gives limits for, in the order of a sheet. */
export const LIMIT_KEYS = [...FAMILIES.flatMap(limitsOfFamily), ...CHECKED_LIMITS] as unknown as [
  LimitKey,
  ...LimitKey[],
];

/** What each limit is called: in a list, and in a sentence. */
const NAMES = new Map<LimitKey, { readonly name: string; readonly word: string }>([
  ...FEATURES.map((key) => {
    const { limitName: name, name: part } = FEATURE_TABLE[key];
    return [key, { name, word: part.toLowerCase() }] as const;
  }),
  ...FAMILIES.map((family) => [FAMILY_TABLE[family].clearance.key, FAMILY_TABLE[family].clearance] as const),
  ...CHECKED_LIMITS.map((key) => [key, MORE[key]] as const),
]);

/**
 * What a limit is called in a list.
 *
 * @example limitName('bigEnd') // 'Big-end bore'
 */
export function limitName(key: LimitKey): string {
  return NAMES.get(key)?.name ?? key;
}

/**
 * What a limit is called in a sentence.
 *
 * @example limitWord('rodClearance') // 'rod oil clearance'
 */
export function limitWord(key: LimitKey): string {
  return NAMES.get(key)?.word ?? key;
}

const shape = Object.fromEntries(LIMIT_KEYS.map((key) => [key, limitSchema.nullable().default(null)])) as Record<
  LimitKey,
  z.ZodDefault<z.ZodNullable<typeof limitSchema>>
>;

/** Every limit of a data sheet, each with its source; null where the sheet gives none. */
export const typeLimitsSchema = z.strictObject(shape);
export type TypeLimits = z.infer<typeof typeLimitsSchema>;

/** The key of a family's oil clearance. */
export function clearanceKey(family: Family): ClearanceKey {
  return FAMILY_TABLE[family].clearance.key;
}

/** The limits of the oil clearance of a family. */
export function clearanceLimitsOf(limits: TypeLimits, family: Family) {
  return limits[FAMILY_TABLE[family].clearance.key];
}

/** The limits that a book may give for single mains: the rear main, the thrust main, each main of a stepped shaft. */
export const PLACED_LIMITS = ['mainBore', 'mainJournal', 'mainClearance'] as const satisfies readonly LimitKey[];
export type PlacedLimit = (typeof PLACED_LIMITS)[number];

const placedShape = Object.fromEntries(PLACED_LIMITS.map((key) => [key, limitSchema.optional()])) as Record<
  PlacedLimit,
  z.ZodOptional<typeof limitSchema>
>;

/** Limits that hold at single mains only, by number of the main, 1 at the front. */
export const mainLimitsSchema = z.record(
  z.string().regex(/^[1-9]\d?$/u, 'a main by its number, 1 at the front'),
  z.strictObject(placedShape),
);
export type MainLimits = z.output<typeof mainLimitsSchema>;

/** A data sheet as far as its limits go. */
export interface LimitSheet {
  readonly limits: TypeLimits;
  readonly mainLimits: MainLimits;
}

/**
 * The limits that hold for a part: those of its own main where the sheet gives it any, else those of the sheet.
 *
 * @param number of the main, 1 at the front, or of the rod or pin; null for what holds where nothing else is said
 */
export function limitAt({ limits, mainLimits }: LimitSheet, key: LimitKey, number: number | null): Limit | null {
  const own = number === null ? undefined : mainLimits[String(number)]?.[key as PlacedLimit];
  return own ?? limits[key];
}
