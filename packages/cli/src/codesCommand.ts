import type { CodeSheet, DecodedRow, Feature } from '@fettle/core';
import {
  cellInterval,
  codeSheetOfType,
  comparedTables,
  decodeRow,
  FAMILIES,
  type Family,
  FEATURE_TABLE,
  FEATURES,
  generatedTable,
  gradesOfCell,
  numberOfLength,
  readCodeSheet,
  readEngineType,
  selectionCodes,
  tableFindings,
} from '@fettle/core';
import type { CommandStreams } from './planCommand.js';
import { faultLine, readInput } from './readInput.js';

/** A stamped row to decode. */
export interface RowToDecode {
  readonly text: string;
  readonly feature: string;
  readonly count: number;
}

/** What a table of one family gives, and what does not hold together in it. */
function familyReport(sheet: CodeSheet, family: Family) {
  const given = sheet[family];
  if (given === null) return [];
  const codes = selectionCodes(given, sheet.unit);
  const length = (value: Parameters<typeof numberOfLength>[0]) => numberOfLength(value, sheet.unit);
  const cells = codes.housing.flatMap(({ mark: housing }) =>
    codes.journal.flatMap(({ mark: journal }) => {
      const cell = codes.table[housing]?.[journal];
      if (cell === undefined) return [];
      const interval = cellInterval(codes, housing, journal);
      const clearance = interval && { tightest: length(interval.tightest), loosest: length(interval.loosest) };
      return [{ housing, journal, ...gradesOfCell(cell), clearance }];
    }),
  );
  const findings = tableFindings(codes).map((finding) => ({
    ...finding,
    ...('by' in finding ? { by: length(finding.by) } : {}),
    ...('below' in finding ? { below: length(finding.below), above: length(finding.above) } : {}),
    ...('interval' in finding
      ? { interval: { tightest: length(finding.interval.tightest), loosest: length(finding.interval.loosest) } }
      : {}),
  }));
  const best = generatedTable(codes, { mixed: true }) ?? {};
  return [{ family, cells, findings, best, differences: comparedTables(codes.table, best) }];
}

function decoded(sheet: CodeSheet, { text, feature, count }: RowToDecode): DecodedRow | string {
  const row = sheet.rows.find((one) => one.feature === feature);
  if (!(FEATURES as readonly string[]).includes(feature) || !row) {
    const known = sheet.rows.map((one) => one.feature).join(', ') || 'none';
    return `the sheet has no row for “${feature}”; it has: ${known}`;
  }
  const { family, role } = FEATURE_TABLE[feature as Feature];
  const bands = sheet[family]?.[role];
  return decodeRow(text, row, sheet.rows, bands?.map(({ mark }) => mark) ?? [], count);
}

/** Reads a code sheet, or the codes of an engine type. */
function readSheet(json: unknown): ReturnType<typeof readCodeSheet> {
  const isType = (json as { format?: unknown } | null)?.format === 'fettle.engine-type/1';
  if (!isType) return readCodeSheet(json);
  const read = readEngineType(json);
  return read.ok ? { ok: true, sheet: codeSheetOfType(read.type) } : read;
}

/**
 * Checks the tables of a code sheet and decodes a stamped row. Prints, per family, what each cell's bands imply, what does not hold
 * together, and the table that bands and walls themselves would call for, compared cell by cell.
 *
 * @returns the exit status: 0 nothing to tell, 2 the sheet is not valid, 3 there are findings or the row cannot be decoded whole
 */
export function codesCommand(text: string, row: RowToDecode | null, { write, complain }: CommandStreams): number {
  const read = readInput(text, readSheet);
  if (!read.ok) {
    for (const fault of read.faults) complain(faultLine(fault, 'sheet'));
    return 2;
  }
  const { sheet } = read;
  const families = FAMILIES.flatMap((family) => familyReport(sheet, family));
  const marks = row && decoded(sheet, row);
  if (typeof marks === 'string') {
    complain(`fettle: ${marks}\n`);
    return 2;
  }
  write(
    `${JSON.stringify({ format: 'fettle.code-report/1', name: sheet.name, unit: sheet.unit, families, row: marks }, null, 2)}\n`,
  );
  const isWhole = marks === null || (marks.ok && marks.marks.every(({ mark }) => mark !== null));
  return families.every(({ findings }) => findings.length === 0) && isWhole ? 0 : 3;
}
