import type { BlockClass } from './BlockClass.js';
import { COST_PER_UM2 } from './fitModel.js';

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
  const objective: string[] = [];
  const rows: string[] = [];
  const bounds: string[] = [];
  const whole: string[] = [];
  const uses = new Map<number, string[]>();
  const use = (resource: number, term: string) => {
    if (resource < 0) return;
    const list = uses.get(resource);
    if (list) list.push(term);
    else uses.set(resource, [term]);
  };
  const names = classes.map(({ block }) => new Array<string>(block.cost.length));
  for (const [at, { block, units }] of classes.entries()) {
    const columns = new Map<number, string[]>();
    const bases: string[] = [];
    if (block.spread < Number.POSITIVE_INFINITY) {
      bases.push(`l${at}`);
      bounds.push(` l${at} free`);
    }
    for (let station = 0; station < block.stations.length; station += 1) {
      const terms: string[] = [];
      const deviations: string[] = [];
      for (let cell = block.start[station]!; cell < block.start[station + 1]!; cell += 1) {
        if (alive[at]![cell] === 0) continue;
        const name = `x${whole.length}`;
        names[at]![cell] = name;
        whole.push(name);
        terms.push(name);
        bounds.push(` 0 <= ${name} <= ${units.length}`);
        if (block.cost[cell]! > 0) objective.push(`${block.cost[cell]! / COST_PER_UM2} ${name}`);
        const a = block.first[cell]!;
        const b = block.second[cell]!;
        if (a === b) use(a, `2 ${name}`);
        else {
          use(a, name);
          use(b, name);
        }
        const column = block.column[cell]!;
        if (column >= 0) columns.set(column, [...(columns.get(column) ?? []), name]);
        const deviation = block.deviation[cell]! / 1000;
        if (deviation !== 0) deviations.push(`${deviation < 0 ? '-' : '+'} ${Math.abs(deviation)} ${name}`);
      }
      if (terms.length === 0) return null;
      rows.push(`${terms.join(' + ')} = ${units.length}`);
      for (const base of bases) {
        rows.push(
          `${deviations.join(' ')} - ${base} >= 0`,
          `${deviations.join(' ')} - ${base} <= ${block.spread / 1000}`,
        );
      }
    }
    for (const list of columns.values()) if (list.length > 1) rows.push(`${list.join(' + ')} <= 1`);
  }
  for (const [resource, terms] of uses) rows.push(`${terms.join(' + ')} <= ${capacity[resource]}`);
  const text = [
    'Minimize',
    ` obj: ${objective.join(' + ') || `0 ${whole[0]}`}`,
    'Subject To',
    ...rows.map((row, at) => ` c${at}: ${row}`),
    'Bounds',
    ...bounds,
    'General',
    ` ${whole.join(' ')}`,
    'End',
  ].join('\n');
  return { text, picksOf: (countOf) => picks(classes, names, countOf) };
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
