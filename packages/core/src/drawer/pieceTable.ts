import { faultsOf } from '../document/fault.js';
import { lengthCell, type RowReader, readTable, type TableRow } from '../document/tableRows.js';
import type { Unit } from '../measure/unit.js';
import { FACES, PIECE_KINDS } from '../shell/piece.js';
import { sideSchema } from '../shell/side.js';
import { type DrawerPiece, drawerPieceSchema, type PieceLine } from './drawerPiece.js';

/** The columns of washers and shims in a CSV or spreadsheet file. Thicknesses carry their unit. */
export const PIECE_COLUMNS = [
  'Kind',
  'Name',
  'Half',
  'Face',
  'Oversize',
  'Coating',
  'Number',
  'Thickness',
  'Leaf',
  'On hand',
  'Bin',
  'Supplier',
  'Price',
  'Least',
  'Findings',
] as const;
type Column = (typeof PIECE_COLUMNS)[number];

const NEEDED: readonly Column[] = ['Kind', 'Name', 'Thickness', 'On hand'];

/** True if a file is one of washers and shims, by its head. */
export function isPieceTable(table: readonly (readonly string[])[]): boolean {
  const head = (table[0] ?? []).map((cell) => cell.trim().toLowerCase());
  return head.includes('kind') && head.includes('thickness');
}

/** The washers and shims of the drawer as a table: a head, then a row a kind. */
export function pieceTable(lines: readonly PieceLine[], unit: Unit): string[][] {
  return [
    [...PIECE_COLUMNS],
    ...lines.map(({ piece }) => [
      piece.kind,
      piece.name,
      piece.half ?? '',
      piece.face ?? '',
      piece.oversize ?? '',
      piece.coating ?? '',
      piece.number ?? '',
      lengthCell(piece.thickness, unit),
      lengthCell(piece.leaf, unit),
      String(piece.onHand),
      piece.bin,
      piece.supplier,
      piece.price === null ? '' : String(piece.price),
      piece.least === 0 ? '' : String(piece.least),
      piece.findings,
    ]),
  ];
}

/** One row of a file on its way into the drawer. */
export type PieceRow = TableRow<DrawerPiece, PieceLine>;

function readRow(row: RowReader<Column>): DrawerPiece | null {
  const optional = (field: 'oversize' | 'coating', column: Column) =>
    row.text(column) === '' ? {} : { [field]: row.text(column) };
  const half = row.oneOf('Half', sideSchema.options);
  const face = row.oneOf('Face', FACES);
  const leaf = row.length('Leaf');
  const given = {
    kind: row.oneOf('Kind', PIECE_KINDS),
    name: row.text('Name'),
    thickness: row.length('Thickness'),
    ...(half === undefined ? {} : { half }),
    ...(face === undefined ? {} : { face }),
    ...optional('oversize', 'Oversize'),
    ...optional('coating', 'Coating'),
    ...(leaf === undefined ? {} : { leaf }),
    ...row.shelf(),
  };
  if (row.faults.length > 0) return null;
  const parsed = drawerPieceSchema.safeParse(given);
  if (parsed.success) return parsed.data;
  row.take(faultsOf(parsed.error), { onHand: 'On hand' });
  return null;
}

/** True if two pieces are one line of the drawer: alike in all that tells them but their thickness. */
function isSamePiece(one: DrawerPiece, other: DrawerPiece): boolean {
  const fields = ['kind', 'name', 'half', 'face', 'oversize', 'coating', 'number'] as const;
  return fields.every((field) => one[field] === other[field]);
}

/**
 * Reads the rows of a file with a head into washers and shims for the drawer.
 *
 * @param unit of thicknesses that carry none
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readPieceTable(table: readonly (readonly string[])[], unit: Unit, lines: readonly PieceLine[]) {
  return readTable(table, unit, lines, {
    columns: PIECE_COLUMNS,
    needed: NEEDED,
    read: readRow,
    isSame: isSamePiece,
    itemOf: ({ piece }: PieceLine) => piece,
    name: 'Name' as const,
  });
}
