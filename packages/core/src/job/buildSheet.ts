import { z } from 'zod';
import { canonicalJson } from '../document/canonicalJson.js';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import { unitSchema } from '../measure/unit.js';
import { crankLayoutSchema } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import type { JobDocument } from './jobDocument.js';
import { SHEET_PARTS } from './sheetBlock.js';
import { sheetContent } from './sheetContent.js';

const cellSchema = z.strictObject({
  text: z.string(),
  small: z.string().optional().describe('A second, smaller line.'),
  state: z.string().optional().describe('State of a station.'),
  at: z.iso.datetime().optional().describe('A moment.'),
});

/** The build sheet of an engine as data: an open format. */
export const buildSheetSchema = z.strictObject({
  format: z.literal('fettle.build-sheet/1'),
  engine: z.string(),
  unit: unitSchema,
  madeAt: z.iso.datetime(),
  madeBy: z.string(),
  version: z.int().nullable().describe('Version of the engine’s document; null where the server has not seen it.'),
  layout: crankLayoutSchema.optional().describe('The shaft, to be drawn.'),
  facts: z.array(z.strictObject({ label: z.string(), text: z.string(), at: z.iso.datetime().optional() })),
  tables: z.array(
    z.strictObject({
      title: z.string(),
      part: z.enum(SHEET_PARTS).optional().describe('Where it stands; every reading has a page of its own.'),
      head: z.array(z.string()),
      figures: z.array(z.boolean()).optional().describe('Which columns hold figures.'),
      rows: z.array(z.array(cellSchema)),
    }),
  ),
  notes: z.array(z.string()),
});
export type BuildSheet = z.output<typeof buildSheetSchema>;

/** When, by whom, and from which version a sheet is made. */
export type MadeSheet = Pick<BuildSheet, 'madeAt' | 'madeBy' | 'version'>;

/** The build sheet of a job as data, with the same content as its page. */
export function buildSheet(job: JobDocument, readings: readonly Reading[], made: MadeSheet): BuildSheet {
  const { facts, tables, notes } = sheetContent(job, readings);
  return {
    format: 'fettle.build-sheet/1',
    engine: job.name,
    unit: job.unit,
    ...made,
    facts: facts.map(({ label, text, at }) => ({ label, text, ...(at === undefined ? {} : { at }) })),
    layout: job.layout,
    tables: tables.map(({ title, part, head, rows }) => ({
      title,
      part,
      head: head.map(({ text }) => text),
      figures: head.map(({ isFigure }) => isFigure),
      rows: rows.map(({ cells }) => cells.map((cell) => ({ ...cell }))),
    })),
    notes: [...notes],
  };
}

/** Reads a build sheet from parsed JSON. @returns the sheet, or every fault with its path */
export function readBuildSheet(
  json: unknown,
): { ok: true; sheet: BuildSheet } | { ok: false; faults: DocumentFault[] } {
  const parsed = buildSheetSchema.safeParse(json);
  return parsed.success ? { ok: true, sheet: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}

/** The build sheet as rows of a spreadsheet: its facts, then each table under its title, then its notes. */
export function buildSheetRows({ engine, facts, tables, notes }: BuildSheet): string[][] {
  const cellText = ({ text, small, state, at }: z.output<typeof cellSchema>) =>
    [state, text, at, small].filter((part) => part !== undefined && part !== '').join(' ');
  return [
    ['Engine', engine],
    ...facts.map(({ label, text, at }) => [label, at === undefined ? text : `${text}, ${at}`]),
    ...tables.flatMap(({ title, head, rows }) => [[], [title], [...head], ...rows.map((row) => row.map(cellText))]),
    [],
    ...notes.map((note) => [note]),
  ];
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
