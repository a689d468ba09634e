import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { typedLengthSchema } from '../document/typedLength.js';
import { momentSchema } from '../measure/moment.js';
import { TORQUE_UNITS } from '../torque/torqueUnit.js';
import { WEAR_PATTERNS } from './wearPatterns.js';

const wordsSchema = z.string().trim().max(500, 'at most 500 characters');

/** Which way the arrow of a cap pointed as it came off. */
export const CAP_ARROWS = ['front', 'rear', 'none'] as const;

/** An old shell as it came out. */
const oldHalfSchema = z.strictObject({
  patterns: z.array(z.enum(WEAR_PATTERNS)).max(8, 'at most 8 patterns').describe('How it looks; empty: not described.'),
  words: wordsSchema.describe('Anything else that is to be seen on it.'),
  photo: z.uuid().toLowerCase().nullable().describe('Photo of it, stored on the server.'),
  wall: typedLengthSchema.nullable().describe('Its wall, read in the middle; null: not read.'),
});
export type OldHalf = z.output<typeof oldHalfSchema>;

/** A station as it came apart. */
const oldStationSchema = z.strictObject({
  arrow: z.enum(CAP_ARROWS).nullable().describe('Where the arrow of the cap pointed; null: nobody looked.'),
  number: z.string().trim().max(20).describe('Number stamped on the cap; empty: none, or nobody looked.'),
  loosen: z
    .strictObject({ value: z.number().positive().max(10_000), unit: z.enum(TORQUE_UNITS) })
    .nullable()
    .describe('Torque at which its fasteners came loose.'),
  upper: oldHalfSchema,
  lower: oldHalfSchema,
  clearance: typedLengthSchema.nullable().describe('Oil clearance with the old shells, where it was read.'),
  by: personSchema,
  at: momentSchema,
});
export type OldStation = z.output<typeof oldStationSchema>;

/** An engine as it came apart: what its old parts looked like, before anything was cleaned away. */
export const cameApartPart = documentPart({
  members: {
    cameApart: z.strictObject({
      stations: z.record(z.string().min(1).max(10), oldStationSchema).describe('By station.'),
      endPlay: typedLengthSchema.nullable().describe('End play before anything was taken off.'),
      words: wordsSchema.describe('What was found on the whole engine.'),
    }),
  },
  since: 8,
  blank: () => ({ cameApart: { stations: {}, endPlay: null, words: '' } }),
});
export type CameApartMembers = PartValues<typeof cameApartPart>;

/** A half of which nothing was said. */
export const BLANK_HALF: OldHalf = { patterns: [], words: '', photo: null, wall: null };

/** A station of which nothing was said yet. */
export function blankStation(stamp: Pick<OldStation, 'by' | 'at'>): OldStation {
  return { arrow: null, number: '', loosen: null, upper: BLANK_HALF, lower: BLANK_HALF, clearance: null, ...stamp };
}
