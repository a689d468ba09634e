import { z } from 'zod';
import type { DocumentFault } from '../../document/fault.js';
import { faultsOf } from '../../document/fault.js';
import { unitSchema } from '../../measure/unit.js';
import { eachFamily, familySchema } from '../../part/family.js';
import { sideSchema } from '../../shell/side.js';

/** Lengths in a file are at most 10 000 of their unit, so that whole nanometres stay exact. */
const lengthSchema = z.number().min(-10_000).max(10_000);
const sizeSchema = z.number().positive().max(10_000);
const idSchema = z.string().min(1).max(200);
/** Empty for a request of one engine. */
const engineSchema = z.string().max(200).default('');

const bandSchema = z
  .strictObject({ low: sizeSchema, high: sizeSchema })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });

/** True if a size is in its band, where it has one. */
function isWithin(size: number, band: { low: number; high: number } | undefined): boolean {
  return band === undefined || (size >= band.low && size <= band.high);
}

/** Smallest and largest single reading of a part whose size is the mean of them. */
const readingsSchema = bandSchema;

/** Where a half may go: the name of a place that takes halves of its own. */
const positionSchema = z.string().max(200);

/**
 * The end play of a station whose halves carry the flanges: `E = reading + fitted − width`, the wider of the two halves counting. A pair
 * without a flange cannot serve it.
 */
const endPlayAtSchema = z
  .strictObject({
    reading: lengthSchema.describe('End play as it was read.'),
    fitted: sizeSchema.describe('Width over the flanges that was fitted then.'),
    low: lengthSchema,
    high: lengthSchema,
    aim: lengthSchema,
    weight: z
      .number()
      .min(0)
      .max(1000)
      .default(0)
      .describe('Weight of its deviation against that of the clearance; 0: only splits ties.'),
  })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' })
  .describe('End play required of flanged shells, if they carry the thrust.');

export const fitStationSchema = z
  .strictObject({
    id: idSchema.describe('Unique among all stations.'),
    engine: engineSchema.describe('Engine it belongs to; leave out for one engine.'),
    family: familySchema,
    journal: sizeSchema.describe('Journal diameter.'),
    journalBand: bandSchema.optional().describe('Range of the journal, if known by its mark only.'),
    journalReadings: readingsSchema
      .optional()
      .describe(
        'Smallest and largest reading: the low limit is judged on the largest journal, the high limit on the smallest.',
      ),
    position: positionSchema.default('').describe('Position that takes its own shells, such as thrust; empty: none.'),
    aim: lengthSchema.describe('Target oil clearance.'),
    low: lengthSchema.describe('Least clearance allowed.'),
    high: lengthSchema.describe('Largest clearance allowed.'),
    offset: lengthSchema
      .default(0)
      .describe('Assembly offset: measured minus predicted clearance of a trial assembly.'),
    offsets: z
      .array(z.strictObject({ series: z.string().max(200), offset: lengthSchema }))
      .max(10_000)
      .default([])
      .describe(
        'Assembly offset by series: a pair of that series, upper and lower, uses it in place of `offset`; every other pair uses `offset`.',
      ),
    inSpread: z
      .boolean()
      .default(true)
      .describe('False: it does not count in the spread; the limit then covers the others of its engine and family.'),
    endPlay: endPlayAtSchema.optional(),
  })
  .superRefine(({ offsets }, context) => {
    const seen = new Map<string, number>();
    offsets.forEach(({ series }, at) => {
      const earlier = seen.get(series);
      if (earlier === undefined) seen.set(series, at);
      else
        context.addIssue({
          code: 'custom',
          path: ['offsets', at, 'series'],
          message: `series “${series}” already has offsets[${earlier}]; remove one`,
        });
    });
  })
  .refine((station) => station.low <= station.high, { path: ['low'], error: 'low is above high; swap them' })
  .refine(({ journal, journalBand }) => isWithin(journal, journalBand), {
    path: ['journalBand'],
    error: 'the journal is not in its band',
  })
  .refine(({ journal, journalReadings }) => isWithin(journal, journalReadings), {
    path: ['journalReadings'],
    error: 'the journal is not between its smallest and its largest reading',
  });

export const fitHousingSchema = z
  .strictObject({
    id: idSchema.describe('Unique among all housings.'),
    engine: engineSchema,
    family: familySchema,
    bore: sizeSchema.describe('Housing bore without shells.'),
    boreBand: bandSchema.optional().describe('Range of the bore, if known by its mark only.'),
    boreReadings: readingsSchema
      .optional()
      .describe(
        'Smallest and largest reading: the low limit is judged on the smallest bore, the high limit on the largest.',
      ),
    station: idSchema
      .nullable()
      .default(null)
      .describe('Station it belongs to, or null when it may go to any of its engine and family.'),
  })
  .refine(({ bore, boreBand }) => isWithin(bore, boreBand), {
    path: ['boreBand'],
    error: 'the bore is not in its band',
  })
  .refine(({ bore, boreReadings }) => isWithin(bore, boreReadings), {
    path: ['boreReadings'],
    error: 'the bore is not between its smallest and its largest reading',
  });

export const fitShellSchema = z
  .strictObject({
    id: idSchema.describe('Unique among all shells.'),
    family: familySchema,
    series: z.string().max(200).describe("One maker's material and coating."),
    half: sideSchema,
    wall: sizeSchema.describe('Wall thickness at the crown.'),
    width: sizeSchema.optional().describe('Width over the flanges of a flanged shell.'),
    positions: z.array(positionSchema).max(1_000).optional().describe('Positions it fits; omitted: all.'),
    wallBand: bandSchema.optional().describe('Range of the wall, if known by its grade only.'),
    undersize: z
      .string()
      .max(20)
      .default('')
      .describe('Undersize, such as 0.25; empty: standard. Undersizes never mix in a station.'),
    stock: z.int().min(0).max(1_000_000_000).nullable().describe('Shells on hand; null: unlimited.'),
    price: z.number().min(0).max(1e9).default(0),
  })
  .refine(({ wall, wallBand }) => isWithin(wall, wallBand), {
    path: ['wallBand'],
    error: 'the wall is not in its band',
  });

const maxSpreadSchema = z.strictObject(eachFamily(() => z.number().min(0).max(10_000).nullable().default(null)));

export const fitRulesSchema = z.strictObject({
  mixedHalves: z.boolean().default(true).describe('True if a station may have two different walls.'),
  acrossSeries: z.boolean().default(false).describe('True if the shells of a station may be of different series.'),
  maxWallStep: z
    .number()
    .min(0)
    .max(10_000)
    .optional()
    .describe(
      "Largest difference of walls in a station, in the request's unit; 0.013 mm, whatever the unit, where it is left out.",
    ),
  thinnerHalf: z
    .enum(['either', 'upper', 'lower'])
    .default('either')
    .describe('Side of the thinner shell in a mixed pair.'),
  maxSpread: maxSpreadSchema
    .nullable()
    .default(null)
    .transform((spread) => spread ?? eachFamily(() => null))
    .describe('Largest spread of deviations from target per engine and family, in the request’s unit.'),
  tightWeight: z.number().min(0).max(1000).default(2).describe('Weight of a shortfall below target.'),
  mixedPenalty: z.number().min(0).max(1e9).default(4).describe('Cost of a mixed station, µm².'),
  pricePenalty: z.number().min(0).max(1e9).default(0).describe('Cost of one unit of price, µm².'),
  limitShare: z
    .number()
    .min(0)
    .max(10)
    .optional()
    .describe(
      'Where nothing fits: the furthest a remedy may move a limit, as a share of the range between the limits; 0.5 where it is left out.',
    ),
});

export const fitHoldSchema = z
  .strictObject({
    station: idSchema,
    housing: idSchema.optional().describe('Housing locked to it.'),
    upper: idSchema.optional().describe('Upper shell locked.'),
    lower: idSchema.optional().describe('Lower shell locked.'),
  })
  .describe('A selection the fitter has made.');

export const fitForbidSchema = z
  .strictObject({
    station: idSchema,
    housing: idSchema.optional().describe('A housing that may not go there.'),
    shell: idSchema.optional().describe('A shell that may not go there, on either side.'),
    mixed: z.literal(true).optional().describe('No two different walls there.'),
  })
  .describe('Something the fitter rules out at a station.');

export const fitWishesSchema = z.strictObject({
  hold: z.array(fitHoldSchema).max(100_000).default([]),
  forbid: z.array(fitForbidSchema).max(100_000).default([]),
});

type Identified = { readonly id: string };

/** A fault for each id that stands in a list for the second time, with the path to it. */
export function repeatedIds(
  list: readonly Identified[],
  name: string,
): { path: (string | number)[]; message: string }[] {
  const first = new Map<string, number>();
  const issues: { path: (string | number)[]; message: string }[] = [];
  list.forEach(({ id }, at) => {
    const earlier = first.get(id);
    if (earlier === undefined) first.set(id, at);
    else
      issues.push({
        path: [name, at, 'id'],
        message: `“${id}” is already the id of ${name}[${earlier}]; ids are unique per list`,
      });
  });
  return issues;
}

/**
 * What the selection core is asked: stations with their journals, aims and limits, the housings, the shells on hand and the
 * rules. The format is open and described in docs/formats.
 */
export const fitRequestSchema = z
  .strictObject({
    format: z.literal('fettle.fit-request/1'),
    unit: unitSchema.describe('Unit of every length, those in rules too.'),
    stations: z.array(fitStationSchema).max(100_000),
    housings: z.array(fitHousingSchema).max(100_000),
    shells: z.array(fitShellSchema).max(10_000),
    rules: fitRulesSchema.prefault({}),
    wishes: fitWishesSchema.prefault({}).describe('What the fitter locks or rules out, station by station.'),
  })
  .superRefine((request, context) => {
    const issues = [
      ...repeatedIds(request.stations, 'stations'),
      ...repeatedIds(request.housings, 'housings'),
      ...repeatedIds(request.shells, 'shells'),
    ];
    const stations = new Map(request.stations.map((station) => [station.id, station]));
    request.housings.forEach((housing, at) => {
      if (housing.station === null) return;
      const path = ['housings', at, 'station'];
      const station = stations.get(housing.station);
      if (!station) issues.push({ path, message: `station “${housing.station}” is not in this request` });
      else if (station.family !== housing.family || station.engine !== housing.engine) {
        issues.push({
          path,
          message: `station “${station.id}” is ${station.family} of engine “${station.engine}”, this housing is ${housing.family} of engine “${housing.engine}”`,
        });
      }
    });
    const known = {
      station: stations,
      housing: new Map(request.housings.map((housing) => [housing.id, housing])),
      shell: new Map(request.shells.map((shell) => [shell.id, shell])),
    };
    for (const list of ['hold', 'forbid'] as const) {
      request.wishes[list].forEach((wish, at) => {
        for (const [field, id] of Object.entries(wish)) {
          const kind = field === 'upper' || field === 'lower' ? 'shell' : (field as keyof typeof known);
          if (typeof id !== 'string' || known[kind].has(id)) continue;
          issues.push({ path: ['wishes', list, at, field], message: `${kind} “${id}” is not in this request` });
        }
      });
    }
    for (const issue of issues) context.addIssue({ code: 'custom', ...issue });
  });

/** A fit request as written in a file: optional fields may be missing. */
export type FitRequestInput = z.input<typeof fitRequestSchema>;
/** A fit request as read: every default filled in. */
export type FitRequest = z.output<typeof fitRequestSchema>;
export type FitShell = z.output<typeof fitShellSchema>;

/**
 * Reads a fit request from parsed JSON.
 *
 * @returns the request with its defaults filled in, or every fault with its path
 */
export function readFitRequest(
  json: unknown,
): { ok: true; request: FitRequest } | { ok: false; faults: DocumentFault[] } {
  const parsed = fitRequestSchema.safeParse(json);
  return parsed.success ? { ok: true, request: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
