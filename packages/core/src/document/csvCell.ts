/** What a spreadsheet would take for a formula, whatever apostrophes stand before it; a plain number with its sign is none. */
const FORMULA = /^'*[=@\t\r+-]/u;
const NUMBER = /^[+-]\d*[.,]?\d+$/u;

function isFormula(cell: string): boolean {
  return FORMULA.test(cell) && !NUMBER.test(cell);
}

/**
 * A cell as it is written into a CSV file: one that a spreadsheet would work out as a formula gets an apostrophe before it, which
 * spreadsheets take for “this is text”. A plain number stays as it is, its sign too. Source: OWASP, CSV injection (from memory).
 *
 * @example csvCell('=1+1') // "'=1+1"
 */
export function csvCell(cell: string): string {
  return isFormula(cell) ? `'${cell}` : cell;
}

/**
 * A cell as it was before it was written: what `csvCell` put before it is taken away again.
 *
 * @example cellOfCsv("'=1+1") // '=1+1'
 */
export function cellOfCsv(written: string): string {
  const cell = written.slice(1);
  return written.startsWith("'") && isFormula(cell) ? cell : written;
}
