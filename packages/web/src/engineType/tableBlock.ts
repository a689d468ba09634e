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
