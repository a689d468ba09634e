import { z } from 'zod';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import { fitRulesSchema, fitShellSchema, repeatedIds } from '../fit/format/fitRequest.js';
import { unitSchema } from '../measure/unit.js';
import { familySchema } from '../part/family.js';

const sizeSchema = z.number().positive().max(10_000);
const lengthSchema = z.number().min(-10_000).max(10_000);
const bandSchema = z
  .strictObject({ low: sizeSchema, high: sizeSchema })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });

const seenNameSchema = z.string().min(1).max(60);
const seenBandSchema = z
  .strictObject({ low: sizeSchema, high: sizeSchema, count: z.int().min(0).describe('Parts seen in it.') })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });

/** Which halves should be on the shelf before anything is measured: an open format. */
export const kitQuestionSchema = z
  .strictObject({
    format: z.literal('fettle.kit-question/1'),
    unit: unitSchema.describe('Unit of every length, those in rules too.'),
    stations: z
      .array(
        z.strictObject({
          id: z.string().min(1).max(200),
          family: familySchema,
          bore: bandSchema.describe('Range of the housing bore.'),
          journal: bandSchema.describe('Range of the journal.'),
          boreReadings: bandSchema.optional().describe('Smallest and largest reading of a bore that was read.'),
          journalReadings: bandSchema.optional().describe('Smallest and largest reading of a journal that was read.'),
          aim: lengthSchema,
          low: lengthSchema,
          high: lengthSchema,
          position: z.string().max(200).default('').describe('Position that takes its own shells.'),
          inSpread: z.boolean().default(true).describe('False: it does not count in the spread.'),
          fixed: z.boolean().default(false).describe('True if its rod stays on it; the others may go on any pin.'),
          boreSeen: seenNameSchema.optional().describe('Its bore is drawn from these bands of `seen`, not evenly.'),
          journalSeen: seenNameSchema.optional().describe('Its journal likewise.'),
        }),
      )
      .min(1)
      .max(60),
    seen: z
      .record(seenNameSchema, z.array(seenBandSchema).min(1).max(100))
      .default({})
      .describe('How often each band was seen, by name: bands are drawn from what that tells of their shares.'),
    freeRods: z.boolean().default(true).describe('True if a rod may go on any pin.'),
    shells: z.array(fitShellSchema).max(500).describe('The kit: stock is the number on hand of each shell.'),
    rules: fitRulesSchema.prefault({}),
    engines: z.int().min(1).max(1_000_000).default(10_000).describe('Engines to draw.'),
    seed: z.int().min(0).max(4_294_967_295).default(1).describe('The same seed draws the same engines.'),
  })
  .superRefine(({ stations, shells, seen }, context) => {
    for (const [at, station] of stations.entries()) {
      for (const member of ['boreSeen', 'journalSeen'] as const) {
        const name = station[member];
        if (name === undefined || Object.hasOwn(seen, name)) continue;
        const message = `“${name}” is not in seen: name one of its lists`;
        context.addIssue({ code: 'custom', path: ['stations', at, member], message });
      }
    }
    for (const issue of [...repeatedIds(stations, 'stations'), ...repeatedIds(shells, 'shells')])
      context.addIssue({ code: 'custom', ...issue });
  });
export type KitQuestion = z.output<typeof kitQuestionSchema>;

/** Reads a kit question from parsed JSON. @returns the question, or every fault with its path */
export function readKitQuestion(
  json: unknown,
): { ok: true; question: KitQuestion } | { ok: false; faults: DocumentFault[] } {
  const parsed = kitQuestionSchema.safeParse(json);
  return parsed.success ? { ok: true, question: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
