import { z } from 'zod';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import { unitSchema } from '../measure/unit.js';
import { eachFamily } from '../part/family.js';
import { FEATURES } from '../part/feature.js';
import { markSchema } from '../part/mark.js';

const sizeSchema = z.number().positive().max(10_000);
const bandFields = {
  low: sizeSchema,
  high: sizeSchema,
};
const ordered = ({ low, high }: { low: number; high: number }) => low <= high;
const swap = { path: ['low'], error: 'low is above high; swap them' };

/** A grade of shell: its wall as a band. */
export const gradeBandSchema = z.strictObject({ id: markSchema, ...bandFields }).refine(ordered, swap);

/** What a table gives a station: one grade for both halves, or one for each. */
export const tableCellSchema = z.union([markSchema, z.strictObject({ upper: markSchema, lower: markSchema })]);
export type TableCell = z.infer<typeof tableCellSchema>;

/** How a row of marks is stamped: what it starts with, and which end its first mark belongs to. */
export const stampedRowSchema = z.strictObject({
  feature: z.enum(FEATURES),
  prefix: z.string().trim().max(6).default('').describe('Letter before the row, such as J or P; empty: none.'),
  first: z.enum(['front', 'rear']).describe('The end of the engine that the first mark belongs to.'),
});
export type StampedRow = z.infer<typeof stampedRowSchema>;

const familyCodesSchema = z
  .strictObject({
    limits: z
      .strictObject({ ...bandFields, source: z.string().trim().min(1, 'enter the book and page').max(200) })
      .refine(ordered, swap)
      .describe('Oil clearance.'),
    aim: z.number().min(-10_000).max(10_000).nullable().default(null).describe('Null: middle of the limits.'),
    housing: z
      .array(z.strictObject({ mark: markSchema, ...bandFields }).refine(ordered, swap))
      .min(1)
      .max(60),
    journal: z
      .array(z.strictObject({ mark: markSchema, ...bandFields }).refine(ordered, swap))
      .min(1)
      .max(60),
    grades: z.array(gradeBandSchema).min(1).max(60),
    table: z
      .record(z.string(), z.record(z.string(), tableCellSchema))
      .describe('By housing mark, then by journal mark.'),
  })
  .superRefine((codes, context) => {
    for (const list of ['housing', 'journal', 'grades'] as const) {
      const names = codes[list].map((one) => ('mark' in one ? one.mark : one.id));
      names.forEach((name, at) => {
        if (names.indexOf(name) === at) return;
        const message = `“${name}” is listed twice; each mark has one band`;
        context.addIssue({ code: 'custom', path: [list, at], message });
      });
    }
  });
export type FamilyCodes = z.output<typeof familyCodesSchema>;

/** Marks, bands, grades and selection tables of one engine type: an open format. */
export const codeSheetSchema = z.strictObject({
  format: z.literal('fettle.code-sheet/1'),
  name: z.string().trim().min(1).max(80),
  unit: unitSchema.describe('Unit of every length.'),
  rows: z.array(stampedRowSchema).max(8).default([]),
  ...eachFamily(() => familyCodesSchema.nullable().default(null)),
});
export type CodeSheet = z.output<typeof codeSheetSchema>;

/** Reads a code sheet from parsed JSON. @returns the sheet, or every fault with its path */
export function readCodeSheet(json: unknown): { ok: true; sheet: CodeSheet } | { ok: false; faults: DocumentFault[] } {
  const parsed = codeSheetSchema.safeParse(json);
  return parsed.success ? { ok: true, sheet: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
