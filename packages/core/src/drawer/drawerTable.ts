import { formatExactLength } from '../measure/formatLength.js';
import { parseLength } from '../measure/parseLength.js';
import { INSTRUMENT_DECIMALS, type Unit } from '../measure/unit.js';
import { familySchema } from '../part/family.js';
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
] as const;
type Column = (typeof DRAWER_COLUMNS)[number];

const NEEDED: readonly Column[] = ['Family', 'Series', 'Grade', 'Half', 'Wall', 'On hand'];

/** The drawer as a table: a head, then a row a kind of half. */
export function drawerTable(lines: readonly DrawerLine[], unit: Unit): string[][] {
  const length = (value: DrawerHalf['wall'] | undefined) =>
    value === undefined ? '' : `${formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
  return [
    [...DRAWER_COLUMNS],
    ...lines.map(({ half }) => [
      half.family,
      half.series,
      half.grade,
      half.half,
      half.undersize ?? '',
      half.number ?? '',
      length(half.wall),
      length(half.band?.low),
      length(half.band?.high),
      String(half.onHand),
      half.bin,
      half.supplier,
      half.price === null ? '' : String(half.price),
      half.least === 0 ? '' : String(half.least),
      half.findings,
    ]),
  ];
}

/** One row of a file on its way into the drawer. */
export type DrawerRow =
  | {
      readonly ok: true;
      /** Row of the file, the head being 1. */
      readonly row: number;
      readonly half: DrawerHalf;
      /** The kind of half in the drawer that it replaces; null for a new one. */
      readonly line: DrawerLine | null;
      /** Whether anything changes. */
      readonly isChange: boolean;
    }
  | {
      readonly ok: false;
      readonly row: number;
      readonly cells: readonly string[];
      /** What is wrong, each with its column. */
      readonly faults: readonly { readonly column: string; readonly message: string }[];
    };

/** A number as people write it, with a point or a comma; null for what is none. */
function plainNumber(text: string): number | null {
  const typed = text.trim().replace(',', '.');
  return /^\d+(\.\d+)?$/u.test(typed) ? Number(typed) : null;
}

function readRow(
  cells: readonly string[],
  places: ReadonlyMap<Column, number>,
  unit: Unit,
): { half: DrawerHalf | null; faults: { column: string; message: string }[] } {
  const faults: { column: string; message: string }[] = [];
  const fault = (column: string, message: string) => {
    faults.push({ column, message });
  };
  const text = (column: Column) => cells[places.get(column) ?? -1]?.trim() ?? '';
  const length = (column: Column) => {
    if (text(column) === '') return undefined;
    const parsed = parseLength(text(column), { unit, signed: 'sign' });
    if (parsed.ok) return parsed.nm;
    fault(column, parsed.message);
    return undefined;
  };
  const number = (column: Column): number | undefined => {
    if (text(column) === '') return undefined;
    const read = plainNumber(text(column));
    if (read === null) fault(column, `“${text(column)}” is no number`);
    return read ?? undefined;
  };
  const oneOf = <Value extends string>(column: Column, values: readonly Value[]): Value | undefined => {
    const typed = text(column).toLowerCase();
    const found = values.find((value) => value === typed);
    if (found === undefined && typed !== '') fault(column, `“${text(column)}” is none of ${values.join(', ')}`);
    return found;
  };
  for (const column of NEEDED) if (text(column) === '') fault(column, 'missing');
  const low = length('Wall from');
  const high = length('Wall to');
  if ((low === undefined) !== (high === undefined)) fault('Wall from', 'a band has two ends, or none');
  const given = {
    family: oneOf('Family', familySchema.options),
    series: text('Series'),
    grade: text('Grade'),
    half: oneOf('Half', sideSchema.options),
    wall: length('Wall'),
    ...(low !== undefined && high !== undefined ? { band: { low, high } } : {}),
    ...(text('Undersize') === '' ? {} : { undersize: text('Undersize') }),
    ...(text('Number') === '' ? {} : { number: text('Number') }),
    onHand: number('On hand'),
    bin: text('Bin'),
    supplier: text('Supplier'),
    price: number('Price') ?? null,
    least: number('Least') ?? 0,
    findings: text('Findings'),
  };
  if (faults.length > 0) return { half: null, faults };
  const parsed = drawerHalfSchema.safeParse(given);
  if (parsed.success) return { half: parsed.data, faults };
  const columns: Readonly<Record<string, Column>> = {
    onHand: 'On hand',
    band: 'Wall from',
    wall: 'Wall',
    series: 'Series',
    grade: 'Grade',
  };
  for (const { path, message } of parsed.error.issues) {
    const field = String(path[0]);
    fault(columns[field] ?? field.replace(/^./u, (letter) => letter.toUpperCase()), message);
  }
  return { half: null, faults };
}

/**
 * Reads the rows of a file with a head into halves for the drawer. Rows that cannot be read are kept with what is wrong in which
 * column; empty rows are passed over. A row whose kind is in the drawer replaces what stands there.
 *
 * @param unit of walls that carry none
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readDrawerTable(
  table: readonly (readonly string[])[],
  unit: Unit,
  lines: readonly DrawerLine[],
): { ok: true; rows: DrawerRow[] } | { ok: false; missing: readonly string[] } {
  const head = (table[0] ?? []).map((cell) => cell.trim().toLowerCase());
  const places = new Map<Column, number>();
  for (const column of DRAWER_COLUMNS) {
    const at = head.indexOf(column.toLowerCase());
    if (at !== -1) places.set(column, at);
  }
  const missing = NEEDED.filter((column) => !places.has(column));
  if (missing.length > 0) return { ok: false, missing };
  const taken: { half: DrawerHalf; row: number }[] = [];
  const rows = table.slice(1).flatMap((cells, at): DrawerRow[] => {
    const row = at + 2;
    if (cells.every((cell) => cell.trim() === '')) return [];
    const { half, faults } = readRow(cells, places, unit);
    const twin = half && taken.find((other) => isSameLine(other.half, half));
    if (twin) faults.push({ column: 'Grade', message: `the same kind as row ${twin.row}; give one row for each` });
    if (!half || twin) return [{ ok: false, row, cells, faults }];
    taken.push({ half, row });
    const line = lines.find((one) => isSameLine(one.half, half)) ?? null;
    const isChange = line === null || JSON.stringify(sorted(line.half)) !== JSON.stringify(sorted(half));
    return [{ ok: true, row, half, line, isChange }];
  });
  return { ok: true, rows };
}

/** The fields of a half in one order, to compare. */
function sorted(half: DrawerHalf): [string, unknown][] {
  return Object.entries(half)
    .filter(([, value]) => value !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1));
}
