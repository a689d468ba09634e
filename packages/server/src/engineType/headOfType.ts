import { type EngineType, FAMILIES, rodCount, sheetLines, type TypeSummary } from '@fettle/core';

/** What a list shows of an engine type, beside where it is kept. */
export type TypeHead = Pick<TypeSummary, 'name' | 'note' | 'unit' | 'mains' | 'rods' | 'coded'>;

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
