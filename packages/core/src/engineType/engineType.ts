import { z } from 'zod';
import { stampedRowSchema, tableCellSchema } from '../codes/codeSheet.js';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import type { UpgradeStep } from '../document/versioned.js';
import { versioned } from '../document/versioned.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { unitSchema } from '../measure/unit.js';
import { crankLayoutSchema } from '../part/crankLayout.js';
import { eachFamily } from '../part/family.js';
import { markedBandSchema } from '../part/mark.js';
import { materialSchema } from '../part/material.js';
import { gradeSchema } from '../shell/grade.js';
import { placesSchema } from '../shell/position.js';
import { undersizeSchema } from '../shell/undersize.js';
import { torqueSchema } from '../torque/fastener.js';
import { mainLimitsSchema, typeLimitsSchema } from './limits.js';
import { THRUST_KINDS } from './thrustKind.js';

function repeated(names: readonly string[], path: string, context: z.RefinementCtx): void {
  names.forEach((name, at) => {
    if (names.indexOf(name) === at) return;
    const message = `“${name}” is listed twice; each mark has one band`;
    context.addIssue({ code: 'custom', path: [path, at], message });
  });
}

/** Marks, grades and the selection table of the mains or of the rods. Empty lists are allowed: a sheet grows as it is typed. */
export const typeFamilySchema = z
  .strictObject({
    series: z.string().trim().max(60).default('').describe('What the maker calls these shells; empty when not given.'),
    housing: z.array(markedBandSchema).max(60).default([]),
    journal: z.array(markedBandSchema).max(60).default([]),
    grades: z.array(gradeSchema).max(60).default([]),
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

/** What is read at a joint between cap and housing; null: nothing. */
const jointsSchema = z.enum(['split-line', 'saddle', 'plain']).nullable().default(null);

/** The data sheet of one engine type: entered once, copied into every job. An open format; lengths in whole nanometres. */
const currentSchema = z.strictObject({
  format: z.literal('fettle.engine-type/1'),
  name: z.string().trim().min(1, 'enter a name for the engine type').max(80, 'at most 80 characters'),
  note: z.string().trim().max(500).default(''),
  unit: unitSchema.describe('Unit the data sheet is written in; lengths are stored in whole nanometres.'),
  layout: crankLayoutSchema,
  viewFrom: z
    .enum(['front', 'rear'])
    .default('front')
    .describe('End the book views the engine from, for left, right and clockwise.'),
  thrustKind: z.enum([...THRUST_KINDS, 'unknown']).default('unknown'),
  joints: jointsSchema.describe(
    'Shims between the joint faces of the shells, or under the caps of white metal; plain shells whose crush is read; null: nothing is read.',
  ),
  rodJoints: z.enum(['split-line', 'saddle', 'plain']).nullable().default(null).describe('The same at the big ends.'),
  endPlayAim: nanometresSchema.nullable().default(null).describe('Target end play; null: middle of the limits.'),
  crushAim: nanometresSchema.nullable().default(null).describe('Target crush; null: middle of the limits.'),
  crushAimAluminium: nanometresSchema
    .nullable()
    .default(null)
    .describe('Target crush under aluminium caps, if different; null: as for the others.'),
  settle: nanometresSchema
    .refine((value) => value >= 0, 'cannot be below zero')
    .nullable()
    .default(null)
    .describe('What the final torque squeezes out of a stack of rings, as it was seen on engines of this type.'),
  materials: z.strictObject({ block: materialSchema, caps: materialSchema, rods: materialSchema }),
  limits: typeLimitsSchema.prefault({}),
  mainLimits: mainLimitsSchema.default({}),
  places: placesSchema.default({}).describe('Mains that take their own shells, by number: name of the position.'),
  torque: z.array(torqueSchema).max(20).default([]),
  rows: z.array(stampedRowSchema).max(8).default([]),
  ...eachFamily(() => typeFamilySchema.prefault({})),
});

/** Version 0 never was: engine types carried their version from the first day. */
const UPGRADES: readonly UpgradeStep[] = [(document) => document];

/** The data sheet of one engine type, read from whichever version it was written in. */
export const engineTypeSchema = versioned('fettle.engine-type', UPGRADES, currentSchema);
export type EngineType = z.output<typeof currentSchema>;

/** Reads an engine type from parsed JSON. @returns the type, or every fault with its path */
export function readEngineType(json: unknown): { ok: true; type: EngineType } | { ok: false; faults: DocumentFault[] } {
  const parsed = engineTypeSchema.safeParse(json);
  return parsed.success ? { ok: true, type: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
