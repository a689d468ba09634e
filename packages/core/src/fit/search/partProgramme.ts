import type { LayeredPart } from './LayerSearch.js';
import { type LinearProgramme, type Term, WholeProgramme } from './WholeProgramme.js';

/** One part of a choice problem as an integer programme, and the way back from its answer. */
export interface PartProgramme {
  readonly programme: LinearProgramme;
  /** Per station its option. */
  pathOf(counts: Int32Array): Int32Array;
}

/** Writes a part as an integer programme: one option a station, the resources, and the spread of each group. */
export function partProgramme(part: LayeredPart): PartProgramme {
  const { alive, cost, deviation, use, capacity, groupOf, spread } = part;
  const written = new WholeProgramme();
  const bases = new Map<number, number>();
  const columns = alive.map((options, station) => {
    const group = groupOf[station]!;
    const terms = Array.from(options, (option): Term => {
      const column = written.count(cost[option]!, 1);
      const [a, b, c] = [use[0][option]!, use[1][option]!, use[2][option]!];
      written.take(a, a === b ? 2 : 1, column);
      if (a !== b) written.take(b, 1, column);
      written.take(c, 1, column);
      return [column, 1];
    });
    written.row(terms, 1, 1);
    if (spread[group]! < Number.POSITIVE_INFINITY) {
      const base = bases.get(group) ?? written.free();
      bases.set(group, base);
      const offAim = terms.map(([column], at): Term => [column, deviation[options[at]!]! / 1000]);
      written.row([...offAim.filter(([, times]) => times !== 0), [base, -1]], 0, spread[group]! / 1000);
    }
    return terms.map(([column]) => column);
  });
  return {
    programme: written.written(capacity),
    pathOf: (counts) =>
      Int32Array.from(alive, (options, station) => {
        const at = columns[station]!.findIndex((column) => counts[column] === 1);
        if (at < 0) throw new Error('the integer solver left a station without an option');
        return options[at]!;
      }),
  };
}
