import { z } from 'zod';
import { pieceChoiceSchema } from '../endPlay/endPlaySchema.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { daySchema } from '../measure/moment.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Material } from '../part/material.js';

/**
 * What is read and set at a joint: crush with shims between the joint faces of the shells; oil clearance with shims between cap and saddle
 * of white metal; or crush of plain shells, which have no shims.
 */
export const JOINT_KINDS = ['split-line', 'saddle', 'plain'] as const;
export type JointKind = (typeof JOINT_KINDS)[number];
export const JOINT_SIDES = ['left', 'right'] as const;
export type JointSide = (typeof JOINT_SIDES)[number];

const unsigned = nanometresSchema.refine((value) => value >= 0, 'cannot be below zero');

const jointSideSchema = z.strictObject({
  go: unsigned.nullable().describe('Feeler that goes in at this side, with this side slackened.'),
  noGo: unsigned.nullable().describe('The next one, which does not.'),
  otherGo: unsigned
    .nullable()
    .optional()
    .describe('Feeler that goes in at the other face of the shim; omitted or null: the shim was pressed to that face.'),
  otherNoGo: unsigned.nullable().optional().describe('The next one there, which does not.'),
  shim: unsigned.nullable().describe('Shim that is there now; 0 for none.'),
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
  kind: z.enum(JOINT_KINDS).nullable().describe('At the mains. Null: nothing is read at their joints.'),
  bigEnds: z
    .enum(JOINT_KINDS)
    .nullable()
    .optional()
    .describe('At the big ends, where the rods are fitted too. Null or left out: nothing is read there.'),
  aim: nanometresSchema.nullable().describe('Null: middle of the limits.'),
  aimAluminium: nanometresSchema
    .nullable()
    .default(null)
    .describe('Target under aluminium caps, if the data sheet gives one; null: as for the others.'),
  alikeWithin: unsigned.describe('White metal: how far the two sides may differ.'),
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

/** No joints read; the two sides within 0.005 mm (common practice). */
export const BLANK_CRUSH: Crush = {
  kind: null,
  bigEnds: null,
  aim: null,
  aimAluminium: null,
  alikeWithin: nanometres(5_000),
  joints: {},
};

/** A joint at which nothing was read. */
export const BLANK_JOINT: Joint = {
  left: { go: null, noGo: null, shim: null },
  right: { go: null, noGo: null, shim: null },
  clearance: null,
  recheck: null,
  choice: null,
};
