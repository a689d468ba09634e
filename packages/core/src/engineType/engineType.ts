import { z } from 'zod';
import { type DocumentFault, type Family, faultsOf } from '../fit/fitRequest.js';
import { limitSchema, sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { unitSchema } from '../measure/unit.js';
import { markSchema, stampedRowSchema, tableCellSchema } from '../shell/codeSheet.js';
import { crankLayoutSchema } from '../station/crankLayout.js';
import { materialSchema } from '../station/material.js';

/** What a data sheet gives limits for. Out-of-round and taper hold for journals and pins. */
export const LIMIT_KEYS = [
  'mainBore',
  'mainJournal',
  'mainClearance',
  'bigEnd',
  'pin',
  'rodClearance',
  'outOfRound',
  'taper',
  'endPlay',
  'runout',
] as const;
export type LimitKey = (typeof LIMIT_KEYS)[number];

const limit = () => limitSchema.nullable().default(null);

/** Every limit of a data sheet, each with its source; null where the sheet gives none. */
export const typeLimitsSchema = z.strictObject({
  mainBore: limit(),
  mainJournal: limit(),
  mainClearance: limit(),
  bigEnd: limit(),
  pin: limit(),
  rodClearance: limit(),
  outOfRound: limit(),
  taper: limit(),
  endPlay: limit(),
  runout: limit(),
});
export type TypeLimits = z.infer<typeof typeLimitsSchema>;

/** Paint that tells a grade; always shown with its name and a pattern of its own. */
export const PAINTS = [
  'black',
  'white',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'brown',
  'grey',
  'pink',
  'violet',
] as const;
export type Paint = (typeof PAINTS)[number];

const bandFields = { mark: markSchema, ...sizeBandSchema.shape };
const ordered = ({ low, high }: { low: number; high: number }) => low <= high;
const swap = { path: ['low'], error: 'low is above high; swap them' };

/** A mark with the sizes it stands for. */
export const typeBandSchema = z.strictObject(bandFields).refine(ordered, swap);
export type TypeBand = z.infer<typeof typeBandSchema>;

/** A grade of shell with what its wall may be. */
export const typeGradeSchema = z
  .strictObject({ ...bandFields, paint: z.enum(PAINTS).nullable().default(null) })
  .refine(ordered, swap);
export type TypeGrade = z.infer<typeof typeGradeSchema>;

/** Shells for a journal ground smaller: what the journal is ground to, and the walls of the grades made for it. */
export const undersizeSchema = z.strictObject({
  name: z.string().trim().min(1, 'name the undersize, as 0.25').max(20),
  /** By how much the journal is smaller, on the diameter. */
  amount: sizeNmSchema,
  journal: limitSchema,
  grades: z.array(typeGradeSchema).max(60),
});
export type Undersize = z.infer<typeof undersizeSchema>;

function repeated(names: readonly string[], path: string, context: z.RefinementCtx): void {
  names.forEach((name, at) => {
    if (names.indexOf(name) === at) return;
    const message = `“${name}” stands there twice; each has one band`;
    context.addIssue({ code: 'custom', path: [path, at], message });
  });
}

/** Marks, grades and the selection table of the mains or of the rods. Empty lists are allowed: a sheet grows as it is typed. */
export const typeFamilySchema = z
  .strictObject({
    series: z.string().trim().max(60).default('').describe('What the maker calls these shells; empty when not given.'),
    housing: z.array(typeBandSchema).max(60).default([]),
    journal: z.array(typeBandSchema).max(60).default([]),
    grades: z.array(typeGradeSchema).max(60).default([]),
    table: z
      .record(z.string(), z.record(z.string(), tableCellSchema))
      .default({})
      .describe('By housing mark, then by journal mark.'),
    tableSource: z.string().trim().max(200).default('').describe('Book and page of bands and table.'),
    undersizes: z.array(undersizeSchema).max(20).default([]),
  })
  .superRefine((family, context) => {
    for (const list of ['housing', 'journal', 'grades'] as const) {
      repeated(
        family[list].map(({ mark }) => mark),
        list,
        context,
      );
    }
    repeated(
      family.undersizes.map(({ name }) => name),
      'undersizes',
      context,
    );
  });
export type TypeFamily = z.output<typeof typeFamilySchema>;

export const torqueSchema = z.strictObject({
  fastener: z.string().trim().min(1, 'say which fastener').max(60),
  steps: z.string().trim().min(1, 'give the steps, as 30 · 55 N·m, then 60°').max(120),
  lubricant: z.string().trim().max(60).default('').describe('What the figure was given for; empty when not given.'),
  source: z.string().trim().min(1, 'name the book and page').max(200),
});
export type Torque = z.infer<typeof torqueSchema>;

/** The data sheet of one engine type: entered once, copied into every job. An open format; lengths in whole nanometres. */
export const engineTypeSchema = z.strictObject({
  format: z.literal('fettle.engine-type/1'),
  name: z.string().trim().min(1, 'give the engine type a name').max(80, 'at most 80 characters'),
  note: z.string().trim().max(500).default(''),
  unit: unitSchema.describe('Unit the sheet is written in; lengths here are whole nanometres all the same.'),
  layout: crankLayoutSchema,
  viewFrom: z
    .enum(['front', 'rear'])
    .default('front')
    .describe('The end one looks from where the book says left, right or clockwise.'),
  thrustKind: z.enum(['washers', 'flanged', 'unknown']).default('unknown'),
  materials: z.strictObject({ block: materialSchema, caps: materialSchema, rods: materialSchema }),
  limits: typeLimitsSchema.prefault({}),
  torque: z.array(torqueSchema).max(20).default([]),
  rows: z.array(stampedRowSchema).max(8).default([]),
  main: typeFamilySchema.prefault({}),
  rod: typeFamilySchema.prefault({}),
});
export type EngineType = z.output<typeof engineTypeSchema>;

/** Reads an engine type from parsed JSON. @returns the type, or every fault with its path */
export function readEngineType(json: unknown): { ok: true; type: EngineType } | { ok: false; faults: DocumentFault[] } {
  const parsed = engineTypeSchema.safeParse(json);
  return parsed.success ? { ok: true, type: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}

/** The limits of the oil clearance of a family. */
export function clearanceLimitsOf(limits: TypeLimits, family: Family) {
  return family === 'main' ? limits.mainClearance : limits.rodClearance;
}
