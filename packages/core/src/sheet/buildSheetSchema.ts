import { z } from 'zod';
import { canonicalJson } from '../document/canonicalJson.js';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import { momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';
import { crankLayoutSchema } from '../part/crankLayout.js';
import { SHEET_PARTS } from '../stage/sheetBlock.js';

const cellSchema = z.strictObject({
  text: z.string(),
  small: z.string().optional().describe('Second, smaller line.'),
  state: z.string().optional().describe('State of a station.'),
  at: momentSchema.optional().describe('A moment.'),
});

/** The build sheet of an engine as data: an open format. */
export const buildSheetSchema = z.strictObject({
  format: z.literal('fettle.build-sheet/1'),
  engine: z.string(),
  unit: unitSchema,
  madeAt: momentSchema,
  madeBy: z.string(),
  version: z.int().nullable().describe('Version of the engine’s document; null: not yet on the server.'),
  layout: crankLayoutSchema.optional().describe('Shaft line, to be drawn.'),
  facts: z.array(z.strictObject({ label: z.string(), text: z.string(), at: momentSchema.optional() })),
  tables: z.array(
    z.strictObject({
      title: z.string(),
      part: z.enum(SHEET_PARTS).optional().describe('Address of the reading; each reading has its own page.'),
      head: z.array(z.string()),
      figures: z.array(z.boolean()).optional().describe('Which columns hold figures.'),
      rows: z.array(z.array(cellSchema)),
    }),
  ),
  notes: z.array(z.string()),
});
export type BuildSheet = z.output<typeof buildSheetSchema>;

/** Reads a build sheet from parsed JSON. @returns the sheet, or every fault with its path */
export function readBuildSheet(
  json: unknown,
): { ok: true; sheet: BuildSheet } | { ok: false; faults: DocumentFault[] } {
  const parsed = buildSheetSchema.safeParse(json);
  return parsed.success ? { ok: true, sheet: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}

/** A sign-off: which revision, by whom and when, why it was made, and what was open. */
export interface SignOff {
  readonly revision: number;
  readonly signedAt: string;
  readonly signedBy: string;
  readonly reason: string;
  readonly open: readonly string[];
}

/**
 * What the hash of a signed sheet is taken of: the sheet and its sign-off, written in one way only. SHA-256 of it, in UTF-8, is printed on
 * the sheet; who has the sheet as JSON can work it out again.
 */
export function signedContent(sheet: BuildSheet, { revision, signedAt, signedBy, reason, open }: SignOff): string {
  return canonicalJson({ sheet, revision, signedAt, signedBy, reason, open });
}
