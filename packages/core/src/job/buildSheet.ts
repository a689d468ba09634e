import type { Reading } from '../part/reading.js';
import type { BuildSheet } from '../sheet/buildSheetSchema.js';
import type { JobDocument } from './jobDocument.js';
import { sheetContent } from './sheetContent.js';

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

/** The build sheet as rows of a spreadsheet: its facts, then each table under its title, then its notes. */
export function buildSheetRows({ engine, facts, tables, notes }: BuildSheet): string[][] {
  const cellText = ({ text, small, state, at }: BuildSheet['tables'][number]['rows'][number][number]) =>
    [state, text, at, small].filter((part) => part !== undefined && part !== '').join(' ');
  return [
    ['Engine', engine],
    ...facts.map(({ label, text, at }) => [label, at === undefined ? text : `${text}, ${at}`]),
    ...tables.flatMap(({ title, head, rows }) => [[], [title], [...head], ...rows.map((row) => row.map(cellText))]),
    [],
    ...notes.map((note) => [note]),
  ];
}
