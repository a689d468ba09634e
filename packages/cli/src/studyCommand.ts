import { type DocumentFault, gaugeStudy, readStudyFile, type StudyResult } from '@fettle/core';
import Papa from 'papaparse';
import type { CommandStreams } from './planCommand.js';
import { faultLine, readInput } from './readInput.js';

const COLUMNS = ['part', 'person', 'trial', 'value'] as const;

/** A number as people write it, with a point or a comma; the text itself where it is none. */
function numberOf(text: string): number | string {
  const typed = text.trim().replace(',', '.').replace('−', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/iu.test(typed) ? Number(typed) : text;
}

type Table = { readonly ok: true; readonly rows: object[] } | { readonly ok: false; readonly faults: DocumentFault[] };

/** The rows of a table with a head, in any order of its columns. */
function rowsOf(text: string): Table {
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const [broken] = errors.filter(({ type }) => type === 'Quotes');
  if (broken) return { ok: false, faults: [{ path: '', message: `row ${(broken.row ?? 0) + 1}: ${broken.message}` }] };
  const [head = [], ...rows] = data;
  const names = head.map((cell) => cell.trim().toLowerCase());
  const missing = COLUMNS.filter((column) => !names.includes(column));
  if (missing.length > 0) {
    const message = `its first row lacks ${missing.join(', ')}; it names the columns part, person, trial, value`;
    return { ok: false, faults: [{ path: '', message }] };
  }
  const at = (row: readonly string[], column: (typeof COLUMNS)[number]) => row[names.indexOf(column)] ?? '';
  return {
    ok: true,
    rows: rows.map((row) => ({
      part: at(row, 'part'),
      person: at(row, 'person'),
      trial: at(row, 'trial'),
      value: numberOf(at(row, 'value')),
    })),
  };
}

/** What the command prints: standard deviations and sums of squares in the unit of the file. */
function printed(result: StudyResult) {
  const { repeatability, reproducibility, interaction, gauge, part, total, percentGauge, categories } = result;
  return {
    ev: repeatability.sd,
    av: reproducibility.sd,
    interaction,
    grr: gauge.sd,
    pv: part.sd,
    tv: total,
    percentGrr: percentGauge,
    categories,
    ss: result.sums,
    pooled: result.isPooled,
  };
}

/**
 * Prints what a gauge study says, as one JSON object.
 *
 * @param text JSON, or CSV with a head
 * @returns the exit status: 0 printed, 2 the study cannot be read or lacks something
 */
export function studyCommand(text: string, { write, complain }: Pick<CommandStreams, 'write' | 'complain'>): number {
  const table: Table | null = /^\s*[[{]/u.test(text) ? null : rowsOf(text);
  const read = table === null ? readInput(text, readStudyFile) : table.ok ? readStudyFile(table.rows) : table;
  if (!read.ok) {
    for (const fault of read.faults) complain(faultLine(fault, 'study'));
    return 2;
  }
  write(`${JSON.stringify(printed(gaugeStudy(read.study)), null, 2)}\n`);
  return 0;
}
