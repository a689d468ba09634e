import { strFromU8, type UnzipFileInfo, unzipSync } from 'fflate';
import { readSheet } from 'read-excel-file/universal';

/** What a file may have at most: more than any drawer or engine here, less than what fills a browser. */
export const XLSX_BOUNDS = { mb: 10, unpackedMb: 60, ratio: 250, parts: 500, rows: 20_000, columns: 200 } as const;
const MB = 2 ** 20;
/** Below this a part may be packed as tightly as it likes. */
const SMALL_BYTES = 100_000;

/** How far the reading of a file is, of 1. */
export type OnProgress = (share: number) => void;

/** What stands in the list of contents of a file, before anything of it is unpacked. @throws Error where it is no XLSX file, or claims too much */
function checkContents(bytes: Uint8Array): void {
  if (bytes.length > XLSX_BOUNDS.mb * MB) throw new Error(`it has more than ${XLSX_BOUNDS.mb} MB`);
  const parts: UnzipFileInfo[] = [];
  try {
    unzipSync(bytes, {
      filter: (part) => {
        parts.push(part);
        return false;
      },
    });
  } catch {
    throw new Error('it is not an XLSX file, or it is damaged');
  }
  if (parts.length > XLSX_BOUNDS.parts) throw new Error(`it has more than ${XLSX_BOUNDS.parts} parts`);
  const unpacked = parts.reduce((sum, { originalSize }) => sum + originalSize, 0);
  const isTight = ({ originalSize, size }: UnzipFileInfo) =>
    originalSize > SMALL_BYTES && originalSize > XLSX_BOUNDS.ratio * size;
  if (unpacked > XLSX_BOUNDS.unpackedMb * MB || parts.some(isTight)) {
    throw new Error(`it unpacks to more than Fettle takes: ${XLSX_BOUNDS.unpackedMb} MB, ${XLSX_BOUNDS.ratio} to 1`);
  }
}

/** The number of a column by its letters: A is 1. */
function columnOf(letters: string): number {
  return [...letters].reduce((sum, letter) => 26 * sum + letter.charCodeAt(0) - 64, 0);
}

/** @throws Error where a sheet has cells further down or to the right than Fettle takes: empty ones before them would be made as well */
function checkCells(bytes: Uint8Array): void {
  const sheets = unzipSync(bytes, { filter: ({ name }) => /^xl\/worksheets\/[^/]+\.xml$/u.test(name) });
  for (const sheet of Object.values(sheets)) {
    const text = strFromU8(sheet);
    let rows = 0;
    for (const [, number] of text.matchAll(/<(?:\w+:)?row\b[^>]*?\br="(\d+)"/gu)) rows = Math.max(rows, Number(number));
    let columns = 0;
    for (const [, letters, number] of text.matchAll(/<(?:\w+:)?c\b[^>]*?\br="([A-Z]{1,6})(\d+)"/gu)) {
      columns = Math.max(columns, columnOf(letters!));
      rows = Math.max(rows, Number(number));
    }
    const { rows: mostRows, columns: mostColumns } = XLSX_BOUNDS;
    if (rows > mostRows || columns > mostColumns) {
      throw new Error(`it has cells beyond row ${mostRows} or column ${mostColumns}`);
    }
  }
}

function textOf(value: unknown): string {
  if (value === null || value === undefined) return '';
  return value instanceof Date ? value.toISOString().slice(0, 10) : String(value);
}

/**
 * The cells of the first sheet of an XLSX file, as text; numbers with the digits that stand in the file.
 *
 * @throws Error where it is none, or claims or holds more than `XLSX_BOUNDS`: in words for who chose it
 */
export async function readXlsx(
  bytes: Uint8Array<ArrayBuffer>,
  onProgress: OnProgress = () => undefined,
): Promise<string[][]> {
  checkContents(bytes);
  onProgress(0.2);
  checkCells(bytes);
  onProgress(0.5);
  const rows = await readSheet(bytes.buffer, { trim: false, parseNumber: (text: string) => text });
  onProgress(0.9);
  return rows.map((row) => row.map(textOf));
}
