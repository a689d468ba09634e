import type { BlockClass } from './BlockClass.js';
import { ProgrammeText } from './ProgrammeText.js';

/** The integer programme that is left, and the way back from its answer. */
export interface FinishingProgramme {
  readonly text: string;
  /** Per class, unit and station the cell chosen. */
  picksOf(countOf: (variable: string) => number): Int32Array[][];
}

/**
 * Writes what is left of a shared choice as an integer programme in LP format: per class of alike stations how many take
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
  const written = new ProgrammeText();
  const names = classes.map(({ block }) => new Array<string>(block.cost.length));
  for (const [at, { block, units }] of classes.entries()) {
    const columns = new Map<number, string[]>();
    const bases: string[] = [];
    if (block.spread < Number.POSITIVE_INFINITY) {
      bases.push(`l${at}`);
      written.free(`l${at}`);
    }
    for (let station = 0; station < block.stations.length; station += 1) {
      const terms: string[] = [];
      const deviations: string[] = [];
      for (let cell = block.start[station]!; cell < block.start[station + 1]!; cell += 1) {
        if (alive[at]![cell] === 0) continue;
        const name = written.count(block.cost[cell]!, units.length);
        names[at]![cell] = name;
        terms.push(name);
        const a = block.first[cell]!;
        const b = block.second[cell]!;
        written.take(a, a === b ? 2 : 1, name);
        if (a !== b) written.take(b, 1, name);
        const column = block.column[cell]!;
        if (column >= 0) columns.set(column, [...(columns.get(column) ?? []), name]);
        const deviation = block.deviation[cell]! / 1000;
        if (deviation !== 0) deviations.push(`${deviation < 0 ? '-' : '+'} ${Math.abs(deviation)} ${name}`);
      }
      if (terms.length === 0) return null;
      written.row(`${terms.join(' + ')} = ${units.length}`);
      for (const base of bases) {
        written.row(`${deviations.join(' ')} - ${base} >= 0`);
        written.row(`${deviations.join(' ')} - ${base} <= ${block.spread / 1000}`);
      }
    }
    for (const list of columns.values()) if (list.length > 1) written.row(`${list.join(' + ')} <= 1`);
  }
  return { text: written.text(capacity), picksOf: (countOf) => picks(classes, names, countOf) };
}

function picks(
  classes: readonly BlockClass[],
  names: readonly (readonly string[])[],
  countOf: (variable: string) => number,
): Int32Array[][] {
  return classes.map(({ block, units }, at) => {
    const chosen = units.map(() => new Int32Array(block.stations.length));
    for (let station = 0; station < block.stations.length; station += 1) {
      let unit = 0;
      for (let cell = block.start[station]!; cell < block.start[station + 1]!; cell += 1) {
        const name = names[at]![cell];
        if (name === undefined) continue;
        for (let times = countOf(name); times > 0; times -= 1) {
          chosen[unit]![station] = cell;
          unit += 1;
        }
      }
      if (unit !== units.length) throw new Error(`the integer solver served ${unit} of ${units.length} alike stations`);
    }
    return chosen;
  });
}
