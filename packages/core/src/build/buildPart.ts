import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { FEATURES } from '../part/feature.js';

/** What an engine ran between two builds is told in. */
export const RUN_UNITS = ['h', 'km', 'mi'] as const;
export type RunUnit = (typeof RUN_UNITS)[number];

const nmSchema = z.int().min(-1_000_000_000).max(1_000_000_000);

/** A size as the earlier build left it. */
const sizeThenSchema = z.strictObject({
  nominal: sizeNmSchema,
  smallest: sizeNmSchema,
  largest: sizeNmSchema,
  u: z.number().min(0).max(1e9).describe('Standard uncertainty of the mean, nm.'),
});
export type SizeThen = z.output<typeof sizeThenSchema>;

const halfThenSchema = z.strictObject({
  label: z.string().max(300),
  wall: sizeNmSchema.describe('Wall that it was selected with, nm.'),
});

/** What was fitted at a station, and with which clearance. */
const fittedThenSchema = z.strictObject({
  upper: halfThenSchema,
  lower: halfThenSchema,
  rod: z.int().min(1).nullable(),
  clearance: nmSchema.nullable().describe('Oil clearance as it was known, nm; null: not known.'),
  isMeasured: z.boolean().describe('True if it was measured with the shells in.'),
});
export type FittedThen = z.output<typeof fittedThenSchema>;

/** The build of the same engine before this one, as it was when this one began: what is changed in it later does not change what was left then. */
export const earlierBuildSchema = z.strictObject({
  job: z.uuid().toLowerCase().describe('The engine in Fettle that it was.'),
  name: z.string().max(80),
  signed: z
    .strictObject({ revision: z.int().min(1), hash: z.string().max(64), at: momentSchema })
    .nullable()
    .describe('Its last signed build sheet; null: it was never signed.'),
  run: z
    .strictObject({ value: z.number().positive().max(1e7), unit: z.enum(RUN_UNITS) })
    .nullable()
    .describe('What the engine ran since; null: nobody said.'),
  sizes: z.partialRecord(z.enum(FEATURES), z.record(z.string().regex(/^[1-9]\d?$/u), sizeThenSchema)),
  fitted: z.record(z.string().min(1).max(10), fittedThenSchema).describe('By station.'),
  endPlay: nmSchema.nullable().describe('End play as it was set, nm; null: not known.'),
});
export type EarlierBuild = z.output<typeof earlierBuildSchema>;

/** Which engine this is, whoever built it and however often. */
export const buildPart = documentPart({
  members: {
    serial: z
      .string()
      .trim()
      .max(40, 'at most 40 characters')
      .describe('Serial number on the engine; empty: not given.'),
    before: earlierBuildSchema.nullable().describe('The build before this one; null: this is the first that is known.'),
  },
  since: 8,
  blank: () => ({ serial: '', before: null }),
});
export type BuildMembers = PartValues<typeof buildPart>;
