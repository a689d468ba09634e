import { inThousandths, thousandths } from '../measure/shownUnit.js';
import type { BuildSheet } from './buildSheetSchema.js';

type Table = BuildSheet['tables'][number];

/** Heads of the columns whose figures are clearances without a unit of their own, as the selection prints them. */
export const CLEARANCE_HEADS: readonly string[] = ['Target', 'Clearance', 'Tightest', 'Loosest'];

/** The end of a table's title that names the unit of its figures. */
const TITLE = ', inches';

function tableInThousandths(table: Table): Table {
  const isInches = table.title.endsWith(TITLE);
  const isClearance = table.head.map((head) => isInches && CLEARANCE_HEADS.includes(head));
  return {
    ...table,
    title: isInches ? `${table.title}; clearances in thousandths` : table.title,
    rows: table.rows.map((row) =>
      row.map((cell, at) => {
        const said = isClearance[at]
          ? (text: string) => text.replace(/[+−-]?\d*\.\d+/gu, thousandths)
          : (text: string) => inThousandths(text);
        return {
          ...cell,
          text: said(cell.text),
          ...(cell.small === undefined ? {} : { small: said(cell.small) }),
        };
      }),
    ),
  };
}

/**
 * A build sheet as it is shown to a person who reads clearances in thousandths of an inch. The stored sheet, its hash, CSV and JSON stay in
 * the engine's unit; a sheet in millimetres comes back as it is.
 */
export function sheetInThousandths(sheet: BuildSheet): BuildSheet {
  if (sheet.unit !== 'in') return sheet;
  return {
    ...sheet,
    facts: sheet.facts.map((fact) => ({ ...fact, text: inThousandths(fact.text) })),
    tables: sheet.tables.map(tableInThousandths),
    notes: sheet.notes.map(inThousandths),
  };
}
