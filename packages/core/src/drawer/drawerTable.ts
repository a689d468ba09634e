import { faultsOf } from '../document/fault.js';
import { lengthCell, type RowReader, readTable, type TableRow } from '../document/tableRows.js';
import type { Unit } from '../measure/unit.js';
import { familySchema } from '../part/family.js';
import { placesOfText } from '../shell/half.js';
import { sideSchema } from '../shell/side.js';
import { type DrawerHalf, type DrawerLine, drawerHalfSchema, isSameLine } from './workshopDrawer.js';

/** The columns of a drawer in a CSV or spreadsheet file. Walls carry their unit. */
export const DRAWER_COLUMNS = [
  'Family',
  'Series',
  'Grade',
  'Half',
  'Undersize',
  'Number',
  'Wall',
  'Wall from',
  'Wall to',
  'On hand',
  'Bin',
  'Supplier',
  'Price',
  'Least',
  'Findings',
  'Flange width',
  'Places',
] as const;
type Column = (typeof DRAWER_COLUMNS)[number];

const NEEDED: readonly Column[] = ['Family', 'Series', 'Grade', 'Half', 'Wall', 'On hand'];

/** The drawer as a table: a head, then a row a kind of half. */
export function drawerTable(lines: readonly DrawerLine[], unit: Unit): string[][] {
  return [
    [...DRAWER_COLUMNS],
    ...lines.map(({ half }) => [
      half.family,
      half.series,
      half.grade,
      half.half,
      half.undersize ?? '',
      half.number ?? '',
      lengthCell(half.wall, unit),
      lengthCell(half.band?.low, unit),
      lengthCell(half.band?.high, unit),
      String(half.onHand),
      half.bin,
      half.supplier,
      half.price === null ? '' : String(half.price),
      half.least === 0 ? '' : String(half.least),
      half.findings,
      lengthCell(half.width, unit),
      half.positions?.join(', ') ?? '',
    ]),
  ];
}

/** One row of a file on its way into the drawer. */
export type DrawerRow = TableRow<DrawerHalf, DrawerLine>;

const FIELD_COLUMNS: Readonly<Record<string, Column>> = {
  onHand: 'On hand',
  band: 'Wall from',
  wall: 'Wall',
  width: 'Flange width',
  positions: 'Places',
  series: 'Series',
  grade: 'Grade',
};

function readRow(row: RowReader<Column>): DrawerHalf | null {
  const low = row.length('Wall from');
  const high = row.length('Wall to');
  if ((low === undefined) !== (high === undefined)) row.fault('Wall from', 'a band has two ends, or none');
  const width = row.length('Flange width');
  const places = placesOfText(row.text('Places'));
  const given = {
    family: row.oneOf('Family', familySchema.options),
    series: row.text('Series'),
    grade: row.text('Grade'),
    half: row.oneOf('Half', sideSchema.options),
    wall: row.length('Wall'),
    ...(low !== undefined && high !== undefined ? { band: { low, high } } : {}),
    ...(width === undefined ? {} : { width }),
    ...(places.length === 0 ? {} : { positions: places }),
    ...(row.text('Undersize') === '' ? {} : { undersize: row.text('Undersize') }),
    ...row.shelf(),
  };
  if (row.faults.length > 0) return null;
  const parsed = drawerHalfSchema.safeParse(given);
  if (parsed.success) return parsed.data;
  row.take(faultsOf(parsed.error), FIELD_COLUMNS);
  return null;
}

/**
 * Reads the rows of a file with a head into halves for the drawer.
 *
 * @param unit of walls that carry none
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readDrawerTable(table: readonly (readonly string[])[], unit: Unit, lines: readonly DrawerLine[]) {
  return readTable(table, unit, lines, {
    columns: DRAWER_COLUMNS,
    needed: NEEDED,
    read: readRow,
    isSame: isSameLine,
    itemOf: ({ half }: DrawerLine) => half,
    name: 'Grade' as const,
  });
}
