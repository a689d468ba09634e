import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { INSTRUMENT_KINDS } from '../instrument/instrumentKinds.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { familySchema } from '../part/family.js';
import { FEATURES } from '../part/feature.js';
import { goesOnSchema, jobIdSchema, pageQuery } from './benchWire.js';
import { endpoint } from './endpoint.js';

/** A build of an engine with a serial number. */
const buildSchema = z.strictObject({
  id: jobIdSchema,
  name: z.string(),
  serial: z.string(),
  createdAt: momentSchema,
  closedAt: momentSchema.nullable(),
  signed: z
    .strictObject({ revision: z.int().min(1), hash: z.string(), at: momentSchema })
    .nullable()
    .describe('Its last signed build sheet; null: never signed.'),
});
export type KnownBuild = z.output<typeof buildSchema>;

/** Which engines count: of a type, with a series of shells, that a person worked on, accepted within some days. Engines that were left out never do. */
const scopeQuery = {
  type: z.string().max(80).default('').describe('Name of the engine type; empty: all.'),
  series: z.string().max(60).default('').describe('Series of shells; empty: all.'),
  person: z.string().max(60).default('').describe('Name of a person who worked on it; empty: anybody.'),
  from: daySchema.optional(),
  to: daySchema.optional(),
};
/** One figure of what is known, to list only the engines behind it. */
const behindQuery = {
  what: z
    .enum(['wall', 'use', 'mark', 'instrument', 'check'])
    .optional()
    .describe('Only engines with such a wall, shell, mark, instrument, or with a trial that checks the ±.'),
  family: familySchema.optional(),
  grade: z.string().max(80).default(''),
  half: z.enum(['upper', 'lower', 'either']).optional(),
  feature: z.enum(FEATURES).optional(),
  mark: z.string().max(40).default(''),
  instrument: z.string().max(60).default(''),
};
export type BehindQuery = z.input<z.ZodObject<typeof behindQuery>>;

const scope = z.object(scopeQuery);
export type KnownScope = z.input<typeof scope>;

const spreadSchema = {
  engines: z.int().min(1),
  mean: z.number().describe('nm'),
  deviation: z.number().nullable().describe('Standard deviation, nm; null: of one.'),
  smallest: z.number(),
  largest: z.number(),
};

const offsetGroupSchema = z.strictObject({
  type: z.string(),
  family: familySchema,
  series: z.string(),
  fasteners: z.string(),
  engines: z.int().min(1),
  samples: z.int().min(0).describe('How many of them came with Fettle to show how it works.'),
  mean: z.number().describe('Random-effects mean over engines, nm.'),
  u: z.number().describe('Standard uncertainty of the mean, nm.'),
  between: z.number().describe('Standard deviation from engine to engine, nm.'),
  uNext: z.number().describe('Standard uncertainty of the next engine, nm.'),
  next: z
    .strictObject({ low: z.number(), high: z.number() })
    .nullable()
    .describe('Within which the next engine is with a chance of 95 %; null with fewer than three.'),
  latest: z.array(
    z.strictObject({
      id: jobIdSchema,
      name: z.string(),
      at: momentSchema,
      offset: z.number(),
      u: z.number(),
      trials: z.int().min(1),
    }),
  ),
});
export type OffsetGroup = z.output<typeof offsetGroupSchema>;

const markedSchema = z.strictObject({
  type: z.string(),
  feature: z.enum(FEATURES),
  bands: z.array(
    z.strictObject({
      mark: z.string(),
      low: z.int().nullable().describe('Band of the data sheet, nm; null: its sheet is not known any more.'),
      high: z.int().nullable(),
      count: z.int().min(0),
      read: z.int().min(0).describe('How many of them were read.'),
      mean: z.number().nullable(),
      deviation: z.number().nullable(),
    }),
  ),
});
export type KnownMarks = z.output<typeof markedSchema>;

const shellSchema = {
  family: familySchema,
  series: z.string(),
  grade: z.string(),
  half: z.enum(['upper', 'lower', 'either']),
};
const wallSchema = z.strictObject({
  ...shellSchema,
  low: z.int().nullable(),
  high: z.int().nullable(),
  ...spreadSchema,
});
export type KnownWall = z.output<typeof wallSchema>;

const useSchema = z.strictObject({
  ...shellSchema,
  total: z.int().min(1),
  taken: z
    .array(z.strictObject({ pieces: z.int().min(1), engines: z.int().min(1) }))
    .describe('How many engines took so many.'),
  months: z.array(z.strictObject({ month: z.string().regex(/^\d{4}-\d\d$/u), count: z.int().min(1) })),
});
export type KnownUse = z.output<typeof useSchema>;

const readerSchema = {
  readings: z.int().min(0),
  slips: z.int().min(0).describe('Readings that took the place of a wrong one.'),
  repeats: z.int().min(0).describe('Places that were read again.'),
  repeatability: z.number().nullable().describe('Standard deviation of one reading by those, nm; null: none.'),
};
const personReadsSchema = z.strictObject({ person: z.string(), ...readerSchema });
const instrumentReadsSchema = z.strictObject({ id: z.string(), name: z.string(), ...readerSchema });
const kindReadsSchema = z.strictObject({
  kind: z.enum(INSTRUMENT_KINDS),
  instruments: z.int().min(1).describe('Instruments of the kind that were read with.'),
  ...readerSchema,
});
export type KindReads = z.output<typeof kindReadsSchema>;
export type PersonReads = z.output<typeof personReadsSchema>;
export type InstrumentReads = z.output<typeof instrumentReadsSchema>;

const knownEngineSchema = z.strictObject({
  id: jobIdSchema,
  name: z.string(),
  type: z.string(),
  at: momentSchema.describe('When its selection was accepted.'),
  signed: z.int().nullable().describe('Revision of its last signed sheet; null: never signed.'),
  leftOut: z.strictObject({ reason: z.string(), by: z.string(), at: momentSchema }).nullable(),
});
export type KnownEngine = z.output<typeof knownEngineSchema>;

const known = <Answer extends z.ZodType>(at: string, summary: string, answer: Answer) =>
  endpoint({
    method: 'get',
    at: `/api/known/${at}`,
    needs: 'read',
    summary,
    query: scope,
    answer,
    problems: ['invalid-request'],
    topics: ['known'],
    isTagged: true,
  });

/** What the workshop knows from its engines: those that were signed, or whose selection was accepted. */
export const HISTORY_ENDPOINTS = {
  listBuilds: endpoint({
    method: 'get',
    at: '/api/builds',
    needs: 'read',
    summary: 'Builds of the engine with a serial number, closed ones too, the latest first',
    query: z.object({
      serial: z.string().trim().max(40).default('').describe('Serial number; empty: no engine has it.'),
    }),
    answer: z.strictObject({ builds: z.array(buildSchema) }),
    problems: ['invalid-request'],
    topics: ['benches', 'sheets'],
    isTagged: true,
  }),
  knownScope: endpoint({
    method: 'get',
    at: '/api/known',
    needs: 'read',
    summary: 'Number of engines with evidence, and the values to filter by',
    answer: z.strictObject({
      engines: z.int().min(0),
      leftOut: z.int().min(0),
      samples: z.int().min(0).describe('How many of those that count came with Fettle.'),
      types: z.array(z.string()),
      series: z.array(z.string()),
      people: z.array(z.string()),
    }),
    topics: ['known'],
    isTagged: true,
  }),
  knownOffsets: known(
    'offsets',
    'What assembly adds to the clearance, by engine type, series of shells and fasteners',
    z.strictObject({ groups: z.array(offsetGroupSchema) }),
  ),
  knownMarks: known(
    'marks',
    'How often each grade mark comes, and the sizes of the parts that carry it',
    z.strictObject({ features: z.array(markedSchema) }),
  ),
  knownWalls: known(
    'walls',
    'Walls that were measured, by series and grade, against the band of the grade',
    z.strictObject({ walls: z.array(wallSchema) }),
  ),
  knownUse: known(
    'use',
    'Shells that were taken, by grade and month',
    z.strictObject({
      months: z.number().describe('From the first engine to today, months; 0: none.'),
      engines: z.int().min(0).describe('Engines built in them.'),
      onBench: z.int().min(0).describe('Open engines without an accepted selection, of the type where one is given.'),
      uses: z.array(useSchema),
    }),
  ),
  knownReaders: known(
    'readers',
    'How people and instruments repeat, and how often a figure had to be put right',
    z.strictObject({
      people: z.array(personReadsSchema),
      instruments: z.array(instrumentReadsSchema),
      kinds: z.array(kindReadsSchema).describe('Registered instruments pooled by kind.'),
    }),
  ),
  knownTrust: known(
    'trust',
    'Are the ± honest: how many trials came within what was stated, by what was stated',
    z.strictObject({
      checks: z.int().min(0),
      engines: z.int().min(0).describe('Engines that the trials are of.'),
      ratio: z
        .number()
        .min(0)
        .nullable()
        .describe('Root mean square of difference over stated standard uncertainty; null: no trial.'),
      levels: z.array(z.strictObject({ stated: z.number(), inside: z.int().min(0) })),
    }),
  ),
  knownEngines: endpoint({
    method: 'get',
    at: '/api/known/engines',
    needs: 'read',
    summary: 'The engines behind what is known, those left out too, the latest first',
    query: z.object({ ...scopeQuery, ...behindQuery, ...pageQuery }),
    answer: z.strictObject({ engines: z.array(knownEngineSchema), goesOn: goesOnSchema }),
    problems: ['invalid-request'],
    topics: ['known'],
    isTagged: true,
  }),
  leaveOut: endpoint({
    method: 'put',
    at: '/api/known/engines/{id}',
    needs: 'bench',
    summary: 'Leave an engine out of what is known, with the reason; or count it again',
    path: z.object({ id: jobIdSchema }),
    body: z.strictObject({
      by: personSchema,
      reason: z.string().trim().min(1, 'enter the reason').max(200).nullable().describe('Null: it counts again.'),
    }),
    answer: z.strictObject({ leftOut: knownEngineSchema.shape.leftOut }),
    problems: ['invalid-request', 'not-found'],
    topics: ['known'],
  }),
} as const;
