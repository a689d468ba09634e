/** An assignment of rows to columns and the prices that prove it least. */
export interface Assignment {
  /** Sum of the chosen costs; Infinity when the rows cannot all be served. */
  readonly total: number;
  /** Per row its column. */
  readonly columns: Int32Array;
  /** Per row and per column the dual: `cost − rowDual − columnDual` is never negative, and zero where chosen. */
  readonly rowDual: Float64Array;
  readonly columnDual: Float64Array;
}

/**
 * Gives every row a column of its own at least total cost: the linear sum assignment by shortest augmenting paths
 * (Kuhn 1955; Jonker and Volgenant, Computing 38, 1987; cited from memory). O(rows² · columns).
 *
 * @param cost row by row; Infinity where a column cannot serve a row
 * @param rows how many rows
 * @param columns how many columns, at least as many as rows
 * @returns the least assignment; its total is Infinity when there is none, and the rest is then of no use
 *
 * @example leastAssignment([4, 1, 3, 2, 0, 5, 3, 2, 2], 3, 3).total // 5
 */
export function leastAssignment(cost: ArrayLike<number>, rows: number, columns: number): Assignment {
  const rowDual = new Float64Array(rows + 1);
  const columnDual = new Float64Array(columns + 1);
  // Row and column 0 are helpers; `server[column]` is the row that holds a column.
  const server = new Int32Array(columns + 1);
  const from = new Int32Array(columns + 1);
  const least = new Float64Array(columns + 1);
  const seen = new Uint8Array(columns + 1);
  const failed = { total: Number.POSITIVE_INFINITY, columns: new Int32Array(rows), rowDual, columnDual };
  for (let row = 1; row <= rows; row += 1) {
    server[0] = row;
    least.fill(Number.POSITIVE_INFINITY);
    seen.fill(0);
    let column = 0;
    do {
      seen[column] = 1;
      const at = server[column]!;
      let step = Number.POSITIVE_INFINITY;
      let next = -1;
      for (let other = 1; other <= columns; other += 1) {
        if (seen[other] === 1) continue;
        const slack = cost[(at - 1) * columns + other - 1]! - rowDual[at]! - columnDual[other]!;
        if (slack < least[other]!) {
          least[other] = slack;
          from[other] = column;
        }
        if (least[other]! < step) {
          step = least[other]!;
          next = other;
        }
      }
      if (next < 0) return failed;
      for (let other = 0; other <= columns; other += 1) {
        if (seen[other] === 1) {
          rowDual[server[other]!]! += step;
          columnDual[other]! -= step;
        } else least[other]! -= step;
      }
      column = next;
    } while (server[column] !== 0);
    while (column !== 0) {
      server[column] = server[from[column]!]!;
      column = from[column]!;
    }
  }
  const chosen = new Int32Array(rows);
  let total = 0;
  for (let column = 1; column <= columns; column += 1) {
    const row = server[column]!;
    if (row === 0) continue;
    chosen[row - 1] = column - 1;
    total += cost[(row - 1) * columns + column - 1]!;
  }
  return { total, columns: chosen, rowDual: rowDual.subarray(1), columnDual: columnDual.subarray(1) };
}
