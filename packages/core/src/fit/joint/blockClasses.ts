import type { ChoiceProblem } from '../model/choice.js';
import type { BlockClass } from './BlockClass.js';
import { StationBlock } from './StationBlock.js';

/** Splits the members of a part into blocks that only the shared halves couple: by free housings and limited spreads. */
function blocksOf(
  problem: ChoiceProblem,
  members: readonly number[],
  kept: readonly Int32Array[],
  scarce: Uint8Array,
): number[][] {
  const blockOf = new Map<number, number[]>();
  const housingUser = new Map<number, number>();
  const groupUser = new Map<number, number>();
  const join = (one: number, other: number) => {
    const [into, from] = [blockOf.get(one)!, blockOf.get(other)!];
    if (into === from) return;
    into.push(...from);
    for (const station of from) blockOf.set(station, into);
  };
  for (const station of members) {
    blockOf.set(station, [station]);
    const group = problem.group[station]!;
    if (problem.spread[group]! < Number.POSITIVE_INFINITY) {
      const other = groupUser.get(group);
      if (other === undefined) groupUser.set(group, station);
      else join(other, station);
    }
    for (const option of kept[station]!) {
      const housing = problem.use[2][option]!;
      if (housing < 0 || scarce[housing] === 0) continue;
      const other = housingUser.get(housing);
      if (other === undefined) housingUser.set(housing, station);
      else join(other, station);
    }
  }
  return [...new Set(blockOf.values())].map((block) => block.sort((a, b) => a - b));
}

/** Cells by cost and halves: single stations with the same ones are alike. */
function signature(problem: ChoiceProblem, options: Int32Array, scarce: Uint8Array): string {
  const limited = (resource: number) => (resource >= 0 && scarce[resource] === 1 ? resource : -1);
  let text = '';
  for (const option of options) {
    text += `${problem.cost[option]},${limited(problem.use[0][option]!)},${limited(problem.use[1][option]!)};`;
  }
  return text;
}

/** The blocks of one part; single stations with equal gaps, aims and limits come as one block with a count. */
export function blockClasses(
  problem: ChoiceProblem,
  members: readonly number[],
  kept: readonly Int32Array[],
  scarce: Uint8Array,
): BlockClass[] {
  const classes: { block: StationBlock; units: Int32Array[][]; stations: number[][] }[] = [];
  const alike = new Map<string, number>();
  for (const stations of blocksOf(problem, members, kept, scarce)) {
    const unit = stations.map((station) => kept[station]!);
    const key = stations.length === 1 ? signature(problem, unit[0]!, scarce) : null;
    const known = key === null ? undefined : alike.get(key);
    if (known !== undefined) {
      classes[known]!.units.push(unit);
      classes[known]!.stations.push(stations);
      continue;
    }
    const at = classes.push({
      block: new StationBlock(problem, stations, kept, scarce),
      units: [unit],
      stations: [stations],
    });
    if (key !== null) alike.set(key, at - 1);
  }
  return classes;
}
