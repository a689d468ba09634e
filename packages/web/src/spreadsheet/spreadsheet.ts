import { cellOfCsv, csvCell } from '@fettle/core';
import Papa from 'papaparse';
import { type OnProgress, XLSX_BOUNDS } from './readXlsx.js';
import type { XlsxAnswer } from './xlsxWorker.js';

const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** A file that takes longer is given up, s. */
const LONGEST_S = 20;
const MOST_CSV_MB = 20;

/** How a file is read: told how far it is, and given up when it is told so. */
export interface Reading {
  readonly onProgress: OnProgress;
  readonly cancelled: AbortSignal;
}

/** Reads an XLSX file beside the page, which stays quick, and can give it up. */
async function readBeside(file: File, { onProgress, cancelled }: Reading): Promise<string[][]> {
  if (file.size > XLSX_BOUNDS.mb * 2 ** 20) throw new Error(`it has more than ${XLSX_BOUNDS.mb} MB`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const worker = new Worker(new URL('./xlsxWorker.ts', import.meta.url), { type: 'module' });
  try {
    return await new Promise((resolve, reject) => {
      const timer = setTimeout(() => reject(new Error(`it was not read after ${LONGEST_S} s`)), LONGEST_S * 1000);
      cancelled.addEventListener('abort', () => reject(new Error('given up')), { once: true });
      worker.addEventListener('error', ({ message }) => reject(new Error(message || 'it takes too much memory')));
      worker.addEventListener('message', ({ data }: MessageEvent<XlsxAnswer>) => {
        if (data.kind === 'progress') onProgress(data.share);
        else if (data.kind === 'read') resolve(data.cells);
        else reject(new Error(data.message));
        if (data.kind !== 'progress') clearTimeout(timer);
      });
      worker.postMessage(bytes, [bytes.buffer]);
    });
  } finally {
    worker.terminate();
  }
}

/** Reads the cells of a CSV file, or of the first sheet of an XLSX file, as text. @throws Error when it is neither, or too large */
export async function readSpreadsheet(file: File, reading: Reading): Promise<string[][]> {
  if (/\.xlsx$/iu.test(file.name)) return readBeside(file, reading);
  if (file.size > MOST_CSV_MB * 2 ** 20) throw new Error(`it has more than ${MOST_CSV_MB} MB`);
  const parsed = Papa.parse<string[]>(await file.text(), { skipEmptyLines: false, preview: XLSX_BOUNDS.rows + 1 });
  if (parsed.data.length > XLSX_BOUNDS.rows) throw new Error(`it has more than ${XLSX_BOUNDS.rows} rows`);
  const [broken] = parsed.errors.filter(({ type }) => type === 'Quotes');
  if (broken) throw new Error(`row ${(broken.row ?? 0) + 1}: ${broken.message}`);
  return parsed.data.map((row) => row.map(cellOfCsv));
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
  const { default: writeXlsx } = await import('write-excel-file/universal');
  const [head = []] = table;
  const rows = table.map((row, nth) =>
    row.map((cell, at) => {
      if (cell === '') return null;
      const isCount = COUNTED.has(head[at]!) && /^\d+(\.\d+)?$/u.test(cell);
      return isCount
        ? { type: Number, value: Number(cell) }
        : { type: String, value: cell, ...(nth === 0 ? { fontWeight: 'bold' as const } : {}) };
    }),
  );
  const columns = head.map((_, at) => ({
    width: Math.min(40, Math.max(8, ...table.map((row) => (row[at] ?? '').length + 2))),
  }));
  // Excel takes no longer name of a sheet, and none of these signs in one.
  const sheet = name.replaceAll(/[\\/?*[\]:]/gu, ' ').slice(0, 31);
  return { type: XLSX_TYPE, content: await writeXlsx(rows, { sheet, columns }).toBlob() };
}

/** A table as a CSV file (RFC 4180), in which no cell begins a formula; reading it gives the same cells again. */
export function csvOf(table: readonly (readonly string[])[], delimiter = ','): string {
  const cells = table.map((row) => row.map(csvCell));
  return `${Papa.unparse(cells, { newline: '\r\n', delimiter })}\r\n`;
}
