import { cellOfCsv, csvCell } from '@fettle/core';
import Papa from 'papaparse';

const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** Reads the cells of a CSV file, or of the first sheet of an XLSX file, as text. @throws Error when it is neither */
export async function readSpreadsheet(file: File): Promise<string[][]> {
  if (!/\.xlsx$/iu.test(file.name)) {
    const parsed = Papa.parse<string[]>(await file.text(), { skipEmptyLines: false });
    const [broken] = parsed.errors.filter(({ type }) => type === 'Quotes');
    if (broken) throw new Error(`row ${(broken.row ?? 0) + 1}: ${broken.message}`);
    return parsed.data.map((row) => row.map(cellOfCsv));
  }
  const { Workbook } = await import('exceljs');
  const book = new Workbook();
  await book.xlsx.load(await file.arrayBuffer());
  const [sheet] = book.worksheets;
  if (!sheet) throw new Error('it has no sheet');
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row, number) => {
    rows[number - 1] = Array.from({ length: sheet.columnCount }, (_, at) => row.getCell(at + 1).text ?? '');
  });
  return Array.from(rows, (row) => row ?? []);
}

/** The cells of a CSV text, without the lines that are empty. */
export function cellsOf(text: string): string[][] {
  return Papa.parse<string[]>(text, { skipEmptyLines: true }).data.map((row) => row.map(cellOfCsv));
}

/** Columns that a spreadsheet may count with; elsewhere 0.50 is a name and no number. */
const COUNTED = new Set(['On hand', 'Price', 'Least', 'Count']);

/** A table as a file for a spreadsheet. */
export async function xlsxOf(
  name: string,
  table: readonly (readonly string[])[],
): Promise<{ type: string; content: BlobPart }> {
  const { Workbook } = await import('exceljs');
  const book = new Workbook();
  const sheet = book.addWorksheet(name);
  const [head = []] = table;
  for (const row of table) {
    sheet.addRow(row.map((cell, at) => (COUNTED.has(head[at]!) && /^\d+(\.\d+)?$/u.test(cell) ? Number(cell) : cell)));
  }
  sheet.getRow(1).font = { bold: true };
  sheet.columns.forEach((column, at) => {
    column.width = Math.min(40, Math.max(8, ...table.map((row) => (row[at] ?? '').length + 2)));
  });
  return { type: XLSX_TYPE, content: (await book.xlsx.writeBuffer()) as BlobPart };
}

/** A table as a CSV file (RFC 4180), in which no cell begins a formula; reading it gives the same cells again. */
export function csvOf(table: readonly (readonly string[])[], delimiter = ','): string {
  const cells = table.map((row) => row.map(csvCell));
  return `${Papa.unparse(cells, { newline: '\r\n', delimiter })}\r\n`;
}
