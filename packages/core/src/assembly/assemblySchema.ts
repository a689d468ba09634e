import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';
import { swapsSchema } from '../part/swap.js';
import { TORQUE_UNITS } from '../torque/torqueUnit.js';

const wordsSchema = z.string().trim().max(500, 'at most 500 characters');
const stamp = { by: personSchema, at: momentSchema };

/** What this engine has of what checks look at; null where nobody said, and then it is asked for. */
export const builtSchema = z.strictObject({
  grooved: z
    .enum(['upper', 'lower', 'both', 'none'])
    .nullable()
    .describe('Which shell of a main carries the oil groove.'),
  lugs: z.boolean().nullable().describe('True if the shells have locating lugs.'),
  dowels: z.boolean().nullable().describe('True if dowels locate caps or shells.'),
  caps: z.enum(['numbers', 'arrows', 'both', 'none']).nullable().describe('Marks that show where caps belong.'),
  washerLugs: z
    .enum(['upper', 'lower', 'both', 'none'])
    .nullable()
    .optional()
    .describe('Which loose thrust washers carry a lug: they go in block or cap, as the engine says.'),
  boltCovers: z.boolean().nullable().describe('True if rod bolts protrude and could nick a crankpin.'),
});
export type Built = z.output<typeof builtSchema>;

/** What is decided about a finding, and by whom. */
export const decisionSchema = z.strictObject({ words: wordsSchema.min(1, 'enter the decision'), ...stamp });

/** A check that was made. */
export const checkSchema = z.strictObject({
  state: z.enum(['done', 'found', 'not-here']).describe('OK; problem found; not applicable.'),
  words: wordsSchema.describe('Problem found; empty: none.'),
  photo: z.uuid().toLowerCase().nullable().describe('Photo of it, stored on the server.'),
  decision: decisionSchema.nullable(),
  ...stamp,
});
export type Check = z.output<typeof checkSchema>;

/** How the shaft turned by hand after a cap was tightened. */
export const TURNS_BY_HAND = ['even', 'uneven', 'stiff'] as const;
export const handTurnSchema = z.strictObject({
  how: z.enum(TURNS_BY_HAND).describe('Free and even; free, uneven; stiff.'),
  angle: z
    .number()
    .min(0)
    .max(360)
    .nullable()
    .describe('Where in the turn it is stiff, degrees; null: all the way round.'),
  breakaway: z
    .strictObject({ value: z.number().min(0).max(10_000), unit: z.enum(TORQUE_UNITS) })
    .nullable()
    .describe('Torque at which it starts to turn, where it was read.'),
  ...stamp,
});
export type HandTurn = z.output<typeof handTurnSchema>;

/** Lubricants of the running faces, by what happens to the engine next. */
export const FACE_SCHOOLS = ['oil', 'assembly'] as const;
export type FaceSchool = (typeof FACE_SCHOOLS)[number];

export const assemblySchema = z.strictObject({
  built: builtSchema,
  face: z.strictObject({
    school: z
      .enum(FACE_SCHOOLS)
      .nullable()
      .describe('Oil, or assembly lubricant if the engine stands before its first run.'),
    name: z.string().trim().max(60, 'at most 60 characters').describe('Name of the product; may be empty.'),
  }),
  checks: z.record(z.string().min(1).max(60), checkSchema).describe('By station and check: `M2/lug`.'),
  turns: z.record(z.string().min(1).max(10), handTurnSchema).describe('By station.'),
  swaps: swapsSchema,
});
export type Assembly = z.output<typeof assemblySchema>;

/** Nothing put together yet. */
export const BLANK_ASSEMBLY: Assembly = {
  built: { grooved: null, lugs: null, dowels: null, caps: null, boltCovers: null },
  face: { school: null, name: '' },
  checks: {},
  turns: {},
  swaps: {},
};
