import {
  type CellDifference,
  comparedTables,
  generatedTable,
  type Paint,
  type SelectionCodes,
  type TableCell,
  type TableFinding,
  tableFindings,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { csvOf } from '../spreadsheet/spreadsheet.js';
import { textOfCell } from './cellText.js';
import type { FamilyProps } from './familyProps.js';
import { isBlank } from './readType.js';
import { shownTable, squareCells, withBlock, withShown } from './tableBlock.js';
import type { BandText } from './typeText.js';

type Compared = 'no' | 'plain' | 'mixed';
type Block = readonly (readonly string[])[];

/** A selection table while it is typed. */
export interface TypedTable {
  /** Marks of the housings and of the journals, and where each stands among the bands. */
  readonly rows: readonly string[];
  readonly columns: readonly string[];
  readonly rowAt: readonly number[];
  readonly columnAt: readonly number[];
  readonly cells: Block;
  readonly typeAt: (row: number, column: number, typed: string) => void;
  readonly grades: readonly string[];
  readonly paintOf: (grade: string) => Paint | null;
  readonly findings: readonly TableFinding[];
  /** True if it is compared with the table that bands and walls call for, and with which. */
  readonly compared: Compared;
  readonly setCompared: (compared: Compared) => void;
  readonly made: SelectionCodes['table'] | null;
  readonly differences: readonly CellDifference[];
  readonly betterAt: (housing: string, journal: string) => TableCell | undefined;
  /** Takes the generated table in place of the typed one. */
  readonly take: () => void;
  /** Fills the empty cells with the grade that bands and walls call for, one for both shells; null where that is not known, or none is empty. */
  readonly fillEmpty: (() => void) | null;
  /** Fills in a block that was pasted, or read from a file. */
  readonly fill: (block: Block, at?: { row: number; column: number }) => void;
  /** What was pasted beyond the table. */
  readonly left: readonly string[];
  readonly seen: () => void;
  readonly csv: () => string;
  readonly isEmpty: boolean;
}

/** A selection table while it is typed: what is shown of it, what was pasted beyond it, and the table that bands and walls call for. */
export function useTable({ text, codes, thinner, set }: FamilyProps): TypedTable {
  const [compared, setCompared] = useState<'no' | 'plain' | 'mixed'>('no');
  const [left, setLeft] = useState<readonly string[]>([]);
  const marksOf = (bands: readonly BandText[]) => bands.map(({ mark }) => mark);
  const table = shownTable(marksOf(text.housing), marksOf(text.journal), text.cells);
  const { rows, columns, rowAt, columnAt } = table;
  const setShown = (shown: readonly (readonly string[])[]) => set({ cells: withShown(text.cells, table, shown) });
  const grades = text.grades.filter((band) => !isBlank(band)).map(({ mark }) => mark.trim());
  const paintOf = (grade: string): Paint | null => {
    const paint = text.grades.find(({ mark }) => mark.trim() === grade)?.paint;
    return paint ? paint : null;
  };
  const findings = useMemo(() => (codes ? tableFindings(codes) : []), [codes]);
  const made = useMemo(
    () => (codes && compared !== 'no' ? generatedTable(codes, { mixed: compared === 'mixed', thinner }) : null),
    [codes, compared, thinner],
  );
  const plain = useMemo(() => (codes ? generatedTable(codes, { mixed: false, thinner }) : null), [codes, thinner]);
  const differences = made && codes ? comparedTables(codes.table, made) : [];
  const fill = (block: readonly (readonly string[])[], at = { row: 0, column: 0 }) => {
    const filled = withBlock(table, block, at);
    setLeft(filled.left);
    setShown(filled.cells);
  };
  const csv = () => csvOf([['', ...columns], ...squareCells(table).map((line, at) => [rows[at]!, ...line])]);
  const isEmpty = rows.length === 0 || columns.length === 0;
  return {
    rows,
    columns,
    rowAt,
    columnAt,
    cells: table.cells,
    typeAt: (row, column, typed) => {
      const cells = squareCells(table);
      cells[row]![column] = typed;
      setShown(cells);
    },
    grades,
    paintOf,
    findings,
    compared,
    setCompared,
    made,
    differences,
    betterAt: (housing, journal) =>
      differences.some((one) => one.housing === housing && one.journal === journal)
        ? made?.[housing]?.[journal]
        : undefined,
    fillEmpty:
      plain !== null && table.cells.some((line) => line.some((cell) => cell.trim() === ''))
        ? () =>
            setShown(
              squareCells(table).map((line, row) =>
                line.map((cell, column) =>
                  cell.trim() === '' ? textOfCell(plain[rows[row]!]?.[columns[column]!]) : cell,
                ),
              ),
            )
        : null,
    take: () => made && setShown(rows.map((row) => columns.map((column) => textOfCell(made[row]?.[column])))),
    fill,
    left,
    seen: () => setLeft([]),
    csv,
    isEmpty,
  };
}
