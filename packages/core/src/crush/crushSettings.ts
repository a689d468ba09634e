import { z } from 'zod';
import { nanometresSchema, notNegativeNmSchema } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import type { SettingRow } from '../stage/settingRow.js';

/**
 * What is read and set at a joint: crush with shims between the joint faces of the shells; oil clearance with shims between cap and saddle
 * of white metal; or crush of plain shells, which have no shims.
 */
export const JOINT_KINDS = ['split-line', 'saddle', 'plain'] as const;
export type JointKind = (typeof JOINT_KINDS)[number];

/** What of a joint decides which settings it has. */
interface JointEngine {
  readonly kind: JointKind;
}

function row<Schema extends z.ZodType>(
  settings: SettingRow<Schema, unknown, JointEngine>,
): SettingRow<Schema, unknown, JointEngine> {
  return settings;
}

const isSaddle = ({ kind }: JointEngine) => kind === 'saddle';

/** The settings of the joints, in the order of their form. A new one is a row here, and the arithmetic that asks for it. */
export const CRUSH_SETTINGS = {
  kind: row({
    schema: z.enum(JOINT_KINDS).nullable().describe('At the mains. Null: nothing is read at their joints.'),
    usual: () => null,
    place: 'what is read at the joints of the mains',
  }),
  bigEnds: row({
    schema: z
      .enum(JOINT_KINDS)
      .nullable()
      .optional()
      .describe('At the big ends, where the rods are fitted too. Null or left out: nothing is read there.'),
    usual: () => null,
    place: 'what is read at the joints of the big ends',
  }),
  aim: row({
    schema: nanometresSchema.nullable().describe('Null: middle of the limits.'),
    usual: () => null,
    place: 'crush target',
    field: { kind: 'length', label: 'Target at every joint (blank: mid-limits)', isOptional: true },
  }),
  aimAluminium: row({
    schema: nanometresSchema
      .nullable()
      .default(null)
      .describe('Target under aluminium caps, if the data sheet gives one; null: as for the others.'),
    usual: () => null,
    place: 'crush target under aluminium caps',
    field: { kind: 'length', label: 'Target under aluminium caps (blank: the same)', isOptional: true },
    isOf: (joint) => !isSaddle(joint),
  }),
  /** 0.005 mm; common practice. */
  alikeWithin: row({
    schema: notNegativeNmSchema.describe('White metal: how far the two sides may differ.'),
    usual: () => nanometres(5_000),
    place: 'how far the shims of two sides may differ',
    field: { kind: 'length', label: 'Shims of the two sides alike within', isOptional: false },
    isOf: isSaddle,
  }),
} as const;
