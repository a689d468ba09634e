import { WholeProgramme } from '../search/WholeProgramme.js';
import type { BlockClass } from './BlockClass.js';
import type { FinishingProgramme } from './finishingProgramme.js';

/** One way to serve a whole block: a cell a station. */
interface Column {
  readonly cost: number;
  readonly cells: Int32Array;
  /** Halves taken, sorted; a half that is taken twice stands twice. */
  readonly halves: readonly number[];
}

/**
 * Ways to serve each block that were best at some prices. Choosing one of them a block is a small problem whose best answer is
 * close to the least cost of all, because near the right prices nearly every block keeps to one way (Dantzig and Wolfe,
 * Operations Research 8, 1960; cited from memory).
 */
export class ColumnPool {
  private readonly classes: readonly BlockClass[];
  private readonly columns: readonly Map<string, Column>[];

  constructor(classes: readonly BlockClass[]) {
    this.classes = classes;
    this.columns = classes.map(() => new Map());
  }

  /** Adds the way that a class's block has just been solved to. */
  add(at: number): void {
    const { block } = this.classes[at]!;
    const halves: number[] = [];
    let cost = 0;
    for (const cell of block.pick) {
      cost += block.cost[cell]!;
      if (block.first[cell]! >= 0) halves.push(block.first[cell]!);
      if (block.second[cell]! >= 0) halves.push(block.second[cell]!);
    }
    halves.sort((a, b) => a - b);
    const key = halves.join();
    const known = this.columns[at]!.get(key);
    if (known === undefined || cost < known.cost) {
      this.columns[at]!.set(key, { cost, cells: block.pick.slice(), halves });
    }
  }

  /**
   * The choice of one way a block as an integer programme.
   *
   * @param most ways a block, those of least reduced cost
   */
  programme(prices: Float64Array, capacity: Float64Array, most: number): FinishingProgramme {
    const written = new WholeProgramme();
    const used = this.classes.map(({ units }, at) => {
      const priced = [...this.columns[at]!.values()].map((column) => ({
        column,
        reduced: column.halves.reduce((sum, half) => sum + prices[half]!, column.cost),
      }));
      priced.sort((a, b) => a.reduced - b.reduced);
      const chosen = priced.slice(0, most).map(({ column }) => {
        const counted = written.count(column.cost, units.length);
        const counts = new Map<number, number>();
        for (const half of column.halves) counts.set(half, (counts.get(half) ?? 0) + 1);
        for (const [half, times] of counts) written.take(half, times, counted);
        return { counted, column };
      });
      written.row(
        chosen.map(({ counted }) => [counted, 1]),
        units.length,
        units.length,
      );
      return chosen;
    });
    return {
      programme: written.written(capacity),
      picksOf: (counts) =>
        used.map((columns) =>
          columns.flatMap(({ counted, column }) =>
            Array.from({ length: counts[counted]! }, () => column.cells.slice()),
          ),
        ),
    };
  }
}
