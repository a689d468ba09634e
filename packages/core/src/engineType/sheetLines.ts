import { gradesOfCell } from '../codes/selectionTable.js';
import { formatExactLength } from '../measure/formatLength.js';
import { INSTRUMENT_DECIMALS, type Unit } from '../measure/unit.js';
import { throwsText } from '../part/throws.js';
import type { EngineType, TypeFamily } from './engineType.js';
import { LIMIT_KEYS, limitName, PLACED_LIMITS } from './limits.js';

/** One thing that a data sheet says. */
export interface SheetLine {
  /** Where it stands; unique on a sheet. */
  readonly place: string;
  readonly text: string;
}

function range({ low, high }: { low: number; high: number }, unit: Unit): string {
  const text = (value: number) => formatExactLength(value as never, unit, INSTRUMENT_DECIMALS[unit]);
  return `${text(low)} to ${text(high)} ${unit}`;
}

function familyLines(name: 'Mains' | 'Rods', family: TypeFamily, unit: Unit): SheetLine[] {
  const lines: SheetLine[] = [];
  const add = (place: string, text: string) => lines.push({ place: `${name}: ${place}`, text });
  if (family.series !== '') add('series', family.series);
  if (family.tableSource !== '') add('source of the table', family.tableSource);
  for (const [list, word] of [
    ['housing', 'housing mark'],
    ['journal', name === 'Mains' ? 'journal mark' : 'pin mark'],
  ] as const) {
    for (const band of family[list]) add(`${word} ${band.mark}`, range(band, unit));
  }
  for (const { mark, paint, ...band } of family.grades)
    add(`grade ${mark}`, `${range(band, unit)}${paint === null ? '' : `, ${paint}`}`);
  for (const [housing, row] of Object.entries(family.table)) {
    for (const [journal, cell] of Object.entries(row)) {
      const { upper, lower } = gradesOfCell(cell);
      add(`table ${housing} × ${journal}`, upper === lower ? upper : `${upper} upper, ${lower} lower`);
    }
  }
  for (const { name: undersize, journal, grades } of family.undersizes) {
    add(`undersize ${undersize}, journal`, `${range(journal, unit)} (${journal.source})`);
    for (const grade of grades) add(`undersize ${undersize}, grade ${grade.mark}`, range(grade, unit));
  }
  return lines;
}

function figure(place: string, value: number | null, unit: Unit): SheetLine[] {
  const text = value === null ? '' : formatExactLength(value as never, unit, INSTRUMENT_DECIMALS[unit]);
  return value === null ? [] : [{ place, text: `${text} ${unit}` }];
}

const JOINT_LINES: Readonly<Record<NonNullable<EngineType['joints']>, string>> = {
  'split-line': 'shims between the joint faces of the shells',
  saddle: 'white metal, shims under the caps',
  plain: 'plain shells, crush read',
};

function jointLine(place: string, kind: EngineType['joints']): SheetLine[] {
  return kind === null ? [] : [{ place, text: JOINT_LINES[kind] }];
}

/** Everything that a data sheet says, line by line, in the order of the sheet. */
export function sheetLines(type: EngineType): SheetLine[] {
  const { layout, materials, limits, unit, rows, torque } = type;
  return [
    { place: 'Name', text: type.name },
    ...(type.note === '' ? [] : [{ place: 'Note', text: type.note }]),
    { place: 'Unit', text: unit },
    {
      place: 'Layout',
      text: `${layout.mains} mains, ${layout.pins.length} pins at ${throwsText(layout)}, thrust ${layout.thrustMain === null ? 'not given' : `at main ${layout.thrustMain}`} (${type.thrustKind})`,
    },
    { place: 'Viewed from', text: `the ${type.viewFrom}` },
    { place: 'Block, caps, rods', text: `${materials.block}, ${materials.caps}, ${materials.rods}` },
    ...LIMIT_KEYS.flatMap((key): SheetLine[] => {
      const limit = limits[key];
      return limit ? [{ place: limitName(key), text: `${range(limit, unit)} (${limit.source})` }] : [];
    }),
    ...Object.entries(type.mainLimits).flatMap(([number, own]) =>
      PLACED_LIMITS.flatMap((key): SheetLine[] => {
        const limit = own[key];
        return limit
          ? [{ place: `${limitName(key)} at main ${number}`, text: `${range(limit, unit)} (${limit.source})` }]
          : [];
      }),
    ),
    ...figure('Target end play', type.endPlayAim, unit),
    ...figure('Target crush', type.crushAim, unit),
    ...figure('Target crush under aluminium caps', type.crushAimAluminium, unit),
    ...figure('Rings settle', type.settle, unit),
    ...jointLine('Joints of the mains', type.joints),
    ...jointLine('Joints of the big ends', type.rodJoints),
    ...torque.map((one) => ({
      place: `Torque: ${one.fastener}`,
      text: [one.steps, one.lubricant, one.source].filter((part) => part !== '').join('; '),
    })),
    ...rows.map((row) => ({
      place: `Stamped row: ${row.feature}`,
      text: `${row.prefix === '' ? 'no prefix' : `starts with ${row.prefix}`}, from the ${row.first}`,
    })),
    ...familyLines('Mains', type.main, unit),
    ...familyLines('Rods', type.rod, unit),
  ];
}

/** A place in which two data sheets differ; null where one of them says nothing. */
export interface SheetDifference {
  readonly place: string;
  readonly from: string | null;
  readonly to: string | null;
}

/** Where two data sheets differ, in the order of the second, then what only the first says. */
export function sheetDifferences(from: EngineType, to: EngineType): SheetDifference[] {
  const before = new Map(sheetLines(from).map(({ place, text }) => [place, text]));
  const after = new Map(sheetLines(to).map(({ place, text }) => [place, text]));
  return [...new Set([...after.keys(), ...before.keys()])].flatMap((place) => {
    const [one, other] = [before.get(place) ?? null, after.get(place) ?? null];
    return one === other ? [] : [{ place, from: one, to: other }];
  });
}
