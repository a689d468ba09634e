import { COST_PER_UM2 } from '../model/fitModel.js';

/** A column of a programme, and how many times it counts in a row. */
export type Term = readonly [column: number, times: number];

/** A linear programme over columns, row by row: what an integer solver is handed. */
export interface LinearProgramme {
  readonly cost: Float64Array;
  readonly lower: Float64Array;
  readonly upper: Float64Array;
  /** 1 where a column is a whole number. */
  readonly isWhole: Int32Array;
  readonly rowLower: Float64Array;
  readonly rowUpper: Float64Array;
  /** Row `r` has the terms `start[r]` to `start[r + 1] − 1`. */
  readonly start: Int32Array;
  readonly column: Int32Array;
  readonly times: Float64Array;
}

/** An integer programme being written: counts of ways to serve stations, sharing the stock. */
export class WholeProgramme {
  private readonly columns: { cost: number; lower: number; upper: number; isWhole: boolean }[] = [];
  private readonly rows: { terms: readonly Term[]; lower: number; upper: number }[] = [];
  private readonly uses = new Map<number, Term[]>();

  /** A whole number from 0 to `most` that costs so many cost units each. @returns its column */
  count(cost: number, most: number): number {
    return this.columns.push({ cost: cost / COST_PER_UM2, lower: 0, upper: most, isWhole: true }) - 1;
  }

  /** A number that may take any value. @returns its column */
  free(): number {
    const anything = Number.POSITIVE_INFINITY;
    return this.columns.push({ cost: 0, lower: -anything, upper: anything, isWhole: false }) - 1;
  }

  /** Each of the counted takes so many of a resource; −1 is none. */
  take(resource: number, times: number, column: number): void {
    if (resource < 0) return;
    const terms = this.uses.get(resource);
    if (terms) terms.push([column, times]);
    else this.uses.set(resource, [[column, times]]);
  }

  /** The sum of the terms lies from `lower` to `upper`. */
  row(terms: readonly Term[], lower: number, upper: number): void {
    this.rows.push({ terms, lower, upper });
  }

  /** The whole programme, the stock as its last rows. @param capacity per resource how often it can be taken */
  written(capacity: Float64Array): LinearProgramme {
    const { columns } = this;
    const stock = [...this.uses].flatMap(([resource, terms]) =>
      capacity[resource] === Number.POSITIVE_INFINITY
        ? []
        : [{ terms, lower: Number.NEGATIVE_INFINITY, upper: capacity[resource]! }],
    );
    const rows = [...this.rows, ...stock];
    const start = new Int32Array(rows.length + 1);
    rows.forEach(({ terms }, at) => {
      start[at + 1] = start[at]! + terms.length;
    });
    const terms = rows.flatMap((row) => row.terms);
    return {
      cost: Float64Array.from(columns, ({ cost }) => cost),
      lower: Float64Array.from(columns, ({ lower }) => lower),
      upper: Float64Array.from(columns, ({ upper }) => upper),
      isWhole: Int32Array.from(columns, ({ isWhole }) => (isWhole ? 1 : 0)),
      rowLower: Float64Array.from(rows, ({ lower }) => lower),
      rowUpper: Float64Array.from(rows, ({ upper }) => upper),
      start,
      column: Int32Array.from(terms, ([column]) => column),
      times: Float64Array.from(terms, ([, times]) => times),
    };
  }
}
