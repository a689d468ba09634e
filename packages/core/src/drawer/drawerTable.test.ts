import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { drawerTable, readDrawerTable } from './drawerTable.js';
import { wallFinding, wallOverBall } from './halfOnReceipt.js';
import { type DrawerHalf, type DrawerLine, drawerHalfSchema, isSameLine } from './workshopDrawer.js';

const HALVES: DrawerHalf[] = [
  {
    family: 'main',
    series: 'Osier',
    grade: 'Teal',
    half: 'upper',
    wall: 1_992_000,
    band: { low: 1_991_000, high: 1_993_000 },
    onHand: 4,
    bin: 'B 3',
    supplier: 'Saltmarsh stores; ask for “thin”',
    price: 4.5,
    least: 2,
  },
  { family: 'rod', series: 'Osier', grade: 'Teal', half: 'either', wall: 1_490_500, undersize: '0.25', onHand: 0 },
  {
    family: 'main',
    series: 'Osier',
    grade: 'Teal',
    half: 'upper',
    wall: 1_992_400,
    number: '17',
    onHand: 1,
    findings: 'scratch',
  },
].map((half) => drawerHalfSchema.parse(half));

const lines: DrawerLine[] = HALVES.map((half, at) => ({
  id: `00000000-0000-4000-8000-00000000000${at}`,
  version: 1,
  half,
  reservations: [],
  used: 0,
  fittedHere: 0,
}));

describe('a drawer in a file', () => {
  it.each(['mm', 'in'] as const)('comes back as it went out, in %s', (unit) => {
    const read = readDrawerTable(drawerTable(lines, unit), unit === 'mm' ? 'in' : 'mm', lines);
    if (!read.ok) throw new Error(read.missing.join());
    expect(read.rows.map((row) => row.ok)).toEqual([true, true, true]);
    read.rows.forEach((row, at) => {
      if (!row.ok) return;
      expect(row.line?.id).toBe(lines[at]!.id);
      // A millimetre figure in inches is rounded to a nanometre or two, and then counts as a change.
      expect(Math.abs(row.item.wall - HALVES[at]!.wall)).toBeLessThanOrEqual(unit === 'mm' ? 0 : 13);
      if (unit === 'mm') expect([row.item, row.isChange]).toEqual([HALVES[at], false]);
    });
  });

  it('says of every bad row what is wrong in which column, and reads the others', () => {
    const read = readDrawerTable(
      [
        ['grade', 'FAMILY', 'Half', 'Series', 'Wall', 'On hand', 'Wall from', 'Price'],
        ['Teal', 'Main', 'Upper', 'Osier', '1,992', '6', '', ''],
        ['', '', '', '', '', '', '', ''],
        ['Plum', 'mane', 'upper', 'Osier', '1.99.5', 'six', '', '4.5 a pair'],
        ['Sand', 'main', '', 'Osier', '1.995', '-1', '1.994', ''],
        ['Rust', 'main', 'upper', 'Osier', '0', '2.5', '', ''],
        ['Teal', 'main', 'upper', 'Osier', '1.992', '1', '', ''],
      ],
      'mm',
      lines,
    );
    if (!read.ok) throw new Error(read.missing.join());
    const told = read.rows.map((row) =>
      row.ok ? 'ok' : `${row.row}: ${row.faults.map(({ column, message }) => `${column} ${message}`).join('; ')}`,
    );
    expect(told[0]).toBe('ok');
    expect(read.rows[0]).toMatchObject({ row: 2, isChange: true, item: { onHand: 6, wall: 1_992_000 } });
    expect(told[1]).toContain('4: ');
    expect(told[1]).toContain('Family “mane” is not one of main, rod');
    expect(told[1]).toContain('On hand “six” is not a number');
    expect(told[1]).toContain('Price “4.5 a pair” is not a number');
    expect(told[2]).toContain('5: Half missing');
    expect(told[2]).toContain('Wall from a band has two ends, or none');
    expect(told[2]).toContain('On hand “-1” is not a number');
    expect(told[3]).toContain('Wall must be above 0');
    expect(told[3]).toContain('On hand a whole number');
    expect(told[4]).toBe('7: Grade same kind as row 2; use one row per kind');
  });

  it('refuses a wall that is not in the band it gives', () => {
    const head = ['Family', 'Series', 'Grade', 'Half', 'Wall', 'Wall from', 'Wall to', 'On hand'];
    const read = readDrawerTable([head, ['main', 'Osier', 'Teal', 'upper', '1.995', '1.990', '1.992', '4']], 'mm', []);
    expect(read).toMatchObject({
      rows: [{ ok: false, faults: [{ column: 'Wall', message: 'the wall is not in its band' }] }],
    });
  });

  it('names the columns that a head lacks', () => {
    expect(readDrawerTable([['Grade', 'Wall']], 'mm', [])).toEqual({
      ok: false,
      missing: ['Family', 'Series', 'Half', 'On hand'],
    });
    expect(readDrawerTable([], 'mm', [])).toMatchObject({ ok: false });
  });

  it('tells kinds apart by undersize and number', () => {
    const [teal, under, numbered] = HALVES as [DrawerHalf, DrawerHalf, DrawerHalf];
    expect(isSameLine(teal, { ...numbered, number: undefined })).toBe(true);
    expect(isSameLine(teal, numbered)).toBe(false);
    expect(isSameLine(under, { ...under, undersize: undefined })).toBe(false);
  });
});

describe('a half on receipt', () => {
  it('has its ball subtracted', () => {
    expect(wallOverBall(nanometres(8_995_000), nanometres(7_000_000))).toBe(1_995_000);
    expect(wallOverBall(nanometres(7_000_000), nanometres(7_000_000))).toBeNull();
    expect(wallOverBall(nanometres(7_000_000), nanometres(0))).toBeNull();
  });

  it('is a finding when its wall is not what its grade says, beyond the reading’s uncertainty', () => {
    const [banded] = HALVES as [DrawerHalf];
    const at = (wall: number) => wallFinding(banded, nanometres(wall), nanometres(1000));
    expect(at(1_990_000)).toBeNull();
    expect(at(1_994_000)).toBeNull();
    expect(at(1_989_500)).toEqual({ side: 'thin', by: 1500 });
    expect(at(1_995_000)).toEqual({ side: 'thick', by: 2000 });
    const { band: _, ...plain } = banded;
    expect(wallFinding(plain, nanometres(1_995_000), nanometres(1000))).toEqual({ side: 'thick', by: 3000 });
  });
});
