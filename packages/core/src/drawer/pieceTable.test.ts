import { describe, expect, it } from 'vitest';
import { drawerPieceSchema, type PieceLine } from './drawerPiece.js';
import { isPieceTable, PIECE_COLUMNS, pieceTable, readPieceTable } from './pieceTable.js';

const PIECES = [
  {
    kind: 'washer',
    name: 'Thin',
    thickness: 2_310_000,
    half: 'upper',
    face: 'front',
    coating: 'tin',
    onHand: 2,
    bin: 'C 1',
  },
  { kind: 'flanged', name: 'Plain', thickness: 31_750_000, half: 'either', oversize: '+0.10', onHand: 4, price: 9.5 },
  { kind: 'ring', name: 'Ring', thickness: 240_000, number: '17', onHand: 1, least: 3, findings: 'scratched' },
  { kind: 'shim', name: 'Laminated', thickness: 406_400, leaf: 50_800, onHand: 6, supplier: 'the works' },
].map((piece) => drawerPieceSchema.parse(piece));

const lines: PieceLine[] = PIECES.map((piece, at) => ({
  id: `00000000-0000-4000-8000-00000000000${at}`,
  version: 2,
  piece,
  reservations: [],
  used: 0,
  fittedHere: 0,
}));

describe('washers and shims as a table', () => {
  it.each(['mm', 'in'] as const)('come back from a file in %s as they were', (unit) => {
    const table = pieceTable(lines, unit);
    expect(isPieceTable(table)).toBe(true);
    // In the other unit than the file's: what is written carries its own.
    const read = readPieceTable(table, unit === 'mm' ? 'in' : 'mm', lines);
    if (!read.ok) throw new Error(read.missing.join());
    for (const [at, row] of read.rows.entries()) {
      if (!row.ok) throw new Error(row.faults.map(({ message }) => message).join());
      expect(row.line?.id).toBe(lines[at]!.id);
      // A millimetre has no end in inches: to half of what is written.
      expect(Math.abs(row.item.thickness - PIECES[at]!.thickness)).toBeLessThanOrEqual(unit === 'mm' ? 0 : 13);
      if (unit === 'mm') expect([row.item, row.isChange]).toEqual([PIECES[at], false]);
    }
    expect(read.rows).toHaveLength(PIECES.length);
  });

  it('say what changes, what is new, and what is wrong in which column', () => {
    const head = ['Name', 'Kind', 'On hand', 'Thickness', 'Half', 'Leaf'];
    const read = readPieceTable(
      [
        head,
        ['Laminated', 'shim', '5', '0.4064', '', '0.0508'],
        ['New', 'Ring', '2', '0,25', '', ''],
        ['', '', '', '', '', ''],
        ['Bad', 'washer', '2', '2.3', '', ''],
        ['Bad', 'disc', 'two', '0', '', ''],
        ['Bad', 'ring', '2', '0.25', 'upper', ''],
        ['New', 'ring', '3', '0.26', '', ''],
      ],
      'mm',
      lines,
    );
    if (!read.ok) throw new Error(read.missing.join());
    const [changed, fresh, ...bad] = read.rows;
    expect(changed).toMatchObject({ ok: true, isChange: true, line: { id: lines[3]!.id }, item: { onHand: 5 } });
    expect(fresh).toMatchObject({ ok: true, line: null, item: { kind: 'ring', thickness: 250_000 } });
    expect(bad.map((row) => (row.ok ? 'good' : row.faults.map(({ column }) => column)))).toEqual([
      ['Half'],
      ['Kind', 'On hand'],
      ['Half'],
      ['Name'],
    ]);
  });

  it('name the columns that a head lacks; a file of halves is none of pieces', () => {
    expect(readPieceTable([['Kind', 'Name']], 'mm', [])).toEqual({ ok: false, missing: ['Thickness', 'On hand'] });
    expect(isPieceTable([['Family', 'Series', 'Wall']])).toBe(false);
    expect(isPieceTable([])).toBe(false);
    expect(new Set(PIECE_COLUMNS).size).toBe(PIECE_COLUMNS.length);
  });
});
