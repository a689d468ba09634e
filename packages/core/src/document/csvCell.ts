/** What a spreadsheet would take for a formula, whatever apostrophes stand before it; a plain number with its sign is none. */
const FORMULA = /^'*[=@\t\r+-]/u;
const NUMBER = /^[+-]\d*[.,]?\d+$/u;
/** What one spreadsheet or another takes for the end of a cell, whatever the file was written with. */
const SEPARATOR = /([,;|\t\r\n])/u;

function isFormula(cell: string): boolean {
  return FORMULA.test(cell) && !NUMBER.test(cell);
}

/** Does something with each stretch of a cell that stands behind a separator. */
function behindSeparators(cell: string, change: (stretch: string) => string): string {
  return cell
    .split(SEPARATOR)
    .map((part, at) => (at > 0 && at % 2 === 0 ? change(part) : part))
    .join('');
}

/**
 * A cell as it is written into a CSV file: one that a spreadsheet would work out as a formula gets an apostrophe before it, which
 * spreadsheets take for “this is text”. So does what would begin a formula within it, where a spreadsheet cuts the file at another separator
 * than it was written with. A plain number stays as it is, its sign too. Source: OWASP, CSV injection (from memory).
 *
 * @example csvCell('=1+1') // "'=1+1"
 * @example csvCell('Teal;=1+1') // "Teal;'=1+1"
 */
export function csvCell(cell: string): string {
  const written = behindSeparators(cell, (stretch) => (isFormula(stretch) ? `'${stretch}` : stretch));
  return isFormula(cell) ? `'${written}` : written;
}

/**
 * A cell as it was before it was written: what `csvCell` put into it is taken away again.
 *
 * @example cellOfCsv("Teal;'=1+1") // 'Teal;=1+1'
 */
export function cellOfCsv(written: string): string {
  const cell = behindSeparators(written, (stretch) => withoutMark(stretch));
  return withoutMark(cell);
}

function withoutMark(written: string): string {
  const rest = written.slice(1);
  return written.startsWith("'") && isFormula(rest) ? rest : written;
}
