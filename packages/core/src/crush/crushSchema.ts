import { z } from 'zod';
import { pieceChoiceSchema } from '../endPlay/endPlaySchema.js';
import { nanometresSchema, notNegativeNmSchema } from '../measure/lengthSchema.js';
import { daySchema } from '../measure/moment.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Material } from '../part/material.js';
import { settingSchemas, usualSettings } from '../stage/settingRow.js';
import { CRUSH_SETTINGS } from './crushSettings.js';

export const JOINT_SIDES = ['left', 'right'] as const;
export type JointSide = (typeof JOINT_SIDES)[number];

const jointSideSchema = z.strictObject({
  go: notNegativeNmSchema.nullable().describe('Feeler that goes in at this side, with this side slackened.'),
  noGo: notNegativeNmSchema.nullable().describe('The next one, which does not.'),
  otherGo: notNegativeNmSchema
    .nullable()
    .optional()
    .describe('Feeler that goes in at the other face of the shim; omitted or null: the shim was pressed to that face.'),
  otherNoGo: notNegativeNmSchema.nullable().optional().describe('The next one there, which does not.'),
  shim: notNegativeNmSchema.nullable().describe('Shim that is there now; 0 for none.'),
});

/** What was read at one joint, and what was chosen for it. */
export const jointSchema = z.strictObject({
  left: jointSideSchema,
  right: jointSideSchema,
  clearance: nanometresSchema.nullable().describe('White metal: vertical oil clearance as read with these shims.'),
  recheck: daySchema.nullable().describe('Day on which it is read again: joints settle.'),
  choice: pieceChoiceSchema.nullable(),
});
export type Joint = z.output<typeof jointSchema>;

/** Shims at the joints of an engine, by station. */
export const crushSchema = z.strictObject({
  ...settingSchemas(CRUSH_SETTINGS),
  joints: z.record(z.string().min(1).max(10), jointSchema),
});
export type Crush = z.output<typeof crushSchema>;

/**
 * The crush aimed at under caps of a material: those of aluminium have a figure of their own where the data sheet gives one; null for
 * the middle of the limits.
 *
 * @example crushAim({ aim: 100_000, aimAluminium: 130_000 }, 'aluminium') // 130_000
 */
export function crushAim(
  { aim, aimAluminium }: Pick<Crush, 'aim' | 'aimAluminium'>,
  caps: Material,
): Nanometres | null {
  return (caps === 'aluminium' ? aimAluminium : null) ?? aim;
}

/** No joints read, and the usual settings. */
export const BLANK_CRUSH: Crush = { ...usualSettings(CRUSH_SETTINGS, null), joints: {} };

/** A joint at which nothing was read. */
export const BLANK_JOINT: Joint = {
  left: { go: null, noGo: null, shim: null },
  right: { go: null, noGo: null, shim: null },
  clearance: null,
  recheck: null,
  choice: null,
};
