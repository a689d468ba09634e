import type { Unit } from '../measure/unit.js';
import { FAMILIES, type Family } from '../part/family.js';
import { rodCount } from '../part/rodCount.js';
import type { EngineType } from './engineType.js';
import { sheetLines } from './sheetLines.js';

/** What a list shows of an engine type. */
export interface TypeHead {
  readonly name: string;
  readonly note: string;
  readonly unit: Unit;
  readonly mains: number;
  readonly rods: number;
  /** Families with a selection table. */
  readonly coded: Family[];
}

/** What is kept beside a revision so that lists and searches read no sheet: its head, and all that it says, a line each. */
export function headOfType(type: EngineType): { head: TypeHead; lines: string } {
  return {
    head: {
      name: type.name,
      note: type.note,
      unit: type.unit,
      mains: type.layout.mains,
      rods: rodCount(type.layout),
      coded: FAMILIES.filter((family) => Object.keys(type[family].table).length > 0),
    },
    lines: sheetLines(type)
      .map(({ place, text }) => `${place}: ${text}`.replaceAll('\n', ' '))
      .join('\n'),
  };
}
