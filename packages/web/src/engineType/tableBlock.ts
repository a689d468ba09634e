/** A selection table's cells as they are typed, with the marks of its rows and columns. */
export interface TableText {
  readonly rows: readonly string[];
  readonly columns: readonly string[];
  readonly cells: readonly (readonly string[])[];
}

/** Cells for every row and column, empty where nothing stands yet. */
export function squareCells({ rows, columns, cells }: TableText): string[][] {
  return rows.map((_, row) => columns.map((__, column) => cells[row]?.[column] ?? ''));
}

/** The part of a table whose rows and columns have something typed in their lines, and where those lines stand. */
export interface ShownTable extends TableText {
  readonly rowAt: readonly number[];
  readonly columnAt: readonly number[];
}

/** The table to show for two lists of marks: a line that is empty, wherever it stands, keeps its cells and is left out. */
export function shownTable(
  rows: readonly string[],
  columns: readonly string[],
  cells: readonly (readonly string[])[],
): ShownTable {
  const typed = (marks: readonly string[]) => marks.flatMap((mark, at) => (mark.trim() === '' ? [] : [at]));
  const [rowAt, columnAt] = [typed(rows), typed(columns)];
  return {
    rowAt,
    columnAt,
    rows: rowAt.map((at) => rows[at]!.trim()),
    columns: columnAt.map((at) => columns[at]!.trim()),
    cells: rowAt.map((row) => columnAt.map((column) => cells[row]?.[column] ?? '')),
  };
}

/** All cells, those that are shown replaced. */
export function withShown(
  cells: readonly (readonly string[])[],
  { rowAt, columnAt }: Pick<ShownTable, 'rowAt' | 'columnAt'>,
  shown: readonly (readonly string[])[],
): string[][] {
  const width = Math.max(0, ...columnAt.map((at) => at + 1), ...cells.map((line) => line.length));
  const height = Math.max(cells.length, ...rowAt.map((at) => at + 1), 0);
  const all = Array.from({ length: height }, (_, row) =>
    Array.from({ length: width }, (__, column) => cells[row]?.[column] ?? ''),
  );
  rowAt.forEach((row, down) => {
    columnAt.forEach((column, across) => {
      all[row]![column] = shown[down]?.[across] ?? '';
    });
  });
  return all;
}

/**
 * Puts a block from a spreadsheet into a table. A block with the marks above and beside it goes where its marks say, in whatever
 * order they stand; one without goes in from the box where it was pasted.
 *
 * @returns the cells, and what of the block found no place
 */
export function withBlock(
  table: TableText,
  block: readonly (readonly string[])[],
  at: { readonly row: number; readonly column: number },
): { cells: string[][]; left: string[] } {
  const cells = squareCells(table);
  const left: string[] = [];
  const heads = block[0]?.slice(1).map((head) => head.trim()) ?? [];
  const sides = block.slice(1).map((line) => line[0]?.trim() ?? '');
  const isHeaded =
    heads.length > 0 &&
    sides.length > 0 &&
    heads.every((head) => table.columns.includes(head)) &&
    sides.every((side) => table.rows.includes(side));
  const put = (row: number, column: number, text: string) => {
    const line = cells[row];
    if (line && column >= 0 && column < table.columns.length) line[column] = text.trim();
    else if (text.trim() !== '') left.push(text.trim());
  };
  block.forEach((line, down) => {
    line.forEach((text, across) => {
      if (!isHeaded) put(at.row + down, at.column + across, text);
      else if (down > 0 && across > 0) {
        put(table.rows.indexOf(sides[down - 1]!), table.columns.indexOf(heads[across - 1]!), text);
      }
    });
  });
  return { cells, left };
}
