import { type LinearProgramme, type Term, WholeProgramme } from '../search/WholeProgramme.js';
import type { BlockClass } from './BlockClass.js';

/** The integer programme that is left, and the way back from its answer. */
export interface FinishingProgramme {
  readonly programme: LinearProgramme;
  /** Per class, unit and station the cell chosen. */
  picksOf(counts: Int32Array): Int32Array[][];
}

/**
 * Writes what is left of a shared choice as an integer programme: per class of alike stations how many take
 * each cell; per engine with free housings or a limited spread its own rows; the stock over all.
 *
 * @param alive per class, 1 for each cell still in play
 * @returns null when a station has none left
 */
export function finishingProgramme(
  classes: readonly BlockClass[],
  alive: readonly Uint8Array[],
  capacity: Float64Array,
): FinishingProgramme | null {
  const written = new WholeProgramme();
  const columnOf = classes.map(({ block }) => new Int32Array(block.cost.length).fill(-1));
  for (const [at, { block, units }] of classes.entries()) {
    const housings = new Map<number, Term[]>();
    const bases = block.spread < Number.POSITIVE_INFINITY ? [written.free()] : [];
    for (let station = 0; station < block.stations.length; station += 1) {
      const terms: Term[] = [];
      const deviations: Term[] = [];
      for (let cell = block.start[station]!; cell < block.start[station + 1]!; cell += 1) {
        if (alive[at]![cell] === 0) continue;
        const counted = written.count(block.cost[cell]!, units.length);
        columnOf[at]![cell] = counted;
        terms.push([counted, 1]);
        const a = block.first[cell]!;
        const b = block.second[cell]!;
        written.take(a, a === b ? 2 : 1, counted);
        if (a !== b) written.take(b, 1, counted);
        const column = block.column[cell]!;
        if (column >= 0) housings.set(column, [...(housings.get(column) ?? []), [counted, 1]]);
        const deviation = block.deviation[cell]! / 1000;
        if (deviation !== 0) deviations.push([counted, deviation]);
      }
      if (terms.length === 0) return null;
      written.row(terms, units.length, units.length);
      for (const base of bases) written.row([...deviations, [base, -1]], 0, block.spread / 1000);
    }
    for (const terms of housings.values()) if (terms.length > 1) written.row(terms, 0, 1);
  }
  return { programme: written.written(capacity), picksOf: (counts) => picks(classes, columnOf, counts) };
}

function picks(classes: readonly BlockClass[], columnOf: readonly Int32Array[], counts: Int32Array): Int32Array[][] {
  return classes.map(({ block, units }, at) => {
    const chosen = units.map(() => new Int32Array(block.stations.length));
    for (let station = 0; station < block.stations.length; station += 1) {
      let unit = 0;
      for (let cell = block.start[station]!; cell < block.start[station + 1]!; cell += 1) {
        const counted = columnOf[at]![cell]!;
        if (counted < 0) continue;
        for (let times = counts[counted]!; times > 0; times -= 1) {
          chosen[unit]![station] = cell;
          unit += 1;
        }
      }
      if (unit !== units.length) throw new Error(`the integer solver served ${unit} of ${units.length} alike stations`);
    }
    return chosen;
  });
}
