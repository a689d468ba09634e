import { z } from 'zod';
import { documentPart, type PartStart, type PartValues } from '../document/documentPart.js';
import { unitSchema } from '../measure/unit.js';
import { type CrankLayout, crankLayoutSchema } from '../part/crankLayout.js';
import { type Material, materialSchema } from '../part/material.js';
import { placesSchema } from '../shell/position.js';
import { engineTypeSchema } from './engineType.js';
import { ENGINE_USES } from './engineUse.js';
import { mainLimitsSchema, typeLimitsSchema } from './limits.js';

/** What is known of an engine when it is put on the bench. */
export interface EngineStart extends PartStart {
  readonly name: string;
  readonly layout: CrankLayout;
  readonly materials: { readonly block: Material; readonly caps: Material; readonly rods: Material };
  readonly withRods: boolean;
}

/** The engine itself, and what its data sheet says. */
export const enginePart = documentPart({
  members: {
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
    /** True if the rods are fitted in this job as well. */
    withRods: z.boolean(),
    /** What the engine is built for; left out or null: nobody said. */
    use: z.enum(ENGINE_USES).nullable().optional(),
  },
  since: 1,
  blank: ({ name, unit, layout, materials, withRods }: EngineStart) => ({
    name,
    unit,
    layout,
    materials,
    origin: null,
    sheet: null,
    limits: typeLimitsSchema.parse({}),
    mainLimits: {},
    places: {},
    withRods,
    use: null,
  }),
  upgrades: {
    /** From before limits by place: the sheet's limits held for every main. */
    4: ({ mainLimits }) => ({ mainLimits: mainLimits ?? {} }),
    /** From before positions with shells of their own. */
    5: ({ places }) => ({ places: places ?? {} }),
  },
});
export type EngineMembers = PartValues<typeof enginePart>;
