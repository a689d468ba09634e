import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canonicalJson } from '../document/canonicalJson.js';
import { type BuildSheet, readBuildSheet, signedContent } from './buildSheetSchema.js';
import { comparedSheets } from './comparedSheets.js';

const sheet = (parts: Partial<BuildSheet> = {}): BuildSheet => ({
  format: 'fettle.build-sheet/1',
  engine: 'Rush Twin',
  unit: 'mm',
  madeAt: '2026-02-03T08:00:00.000Z',
  madeBy: 'Wren',
  version: 3,
  facts: [{ label: 'Selection accepted', text: 'Wren', at: '2026-02-03T07:00:00.000Z' }],
  tables: [
    {
      title: 'Mains, millimetres',
      part: 'result',
      head: ['Main', 'Bore', 'Verdict'],
      figures: [false, true, false],
      rows: [
        [{ text: 'M1' }, { text: '64.010', small: '± 0.003' }, { text: '', state: 'inside' }],
        [{ text: 'M2' }, { text: '64.011' }, { text: '', state: 'close' }],
      ],
    },
  ],
  notes: ['An aid.'],
  ...parts,
});

const told = (at: string) => `at ${at.slice(0, 10)}`;
const compared = (before: BuildSheet, now: BuildSheet) => comparedSheets(before, now, told);

describe('two sheets of one engine', () => {
  it('differ in nothing where only who made them, and when, is another', () => {
    expect(compared(sheet(), sheet({ madeAt: '2026-03-01T08:00:00.000Z', madeBy: 'Teasel', version: 9 }))).toEqual([]);
  });

  it('are told apart fact by fact, row by row, cell by cell', () => {
    const [table] = sheet().tables;
    const later = sheet({
      facts: [{ label: 'Thrust at', text: 'main 2' }],
      tables: [
        {
          ...table!,
          rows: [
            [{ text: 'M1' }, { text: '64.010', small: '± 0.004' }, { text: '', state: 'inside' }],
            [{ text: 'M3' }, { text: '64.012' }, { text: '', state: 'inside' }],
          ],
        },
        { title: 'Final assembly', head: ['Station', 'Turns'], rows: [[{ text: 'M1' }, { text: 'free and even' }]] },
      ],
    });
    expect(compared(sheet(), later)).toEqual([
      { where: 'The sheet', what: 'Selection accepted', before: 'Wren, at 2026-02-03', now: null },
      { where: 'The sheet', what: 'Thrust at', before: null, now: 'main 2' },
      { where: 'Mains, M1', what: 'Bore', before: '64.010 ± 0.003', now: '64.010 ± 0.004' },
      { where: 'Mains, M2', what: 'line', before: '64.011, Near limit', now: null },
      { where: 'Mains, M3', what: 'line', before: null, now: '64.012, In limits' },
      { where: 'Final assembly, M1', what: 'line', before: null, now: 'free and even' },
    ]);
  });

  it('keep rows apart that begin alike', () => {
    const passes = (...done: string[]) =>
      sheet({
        tables: [
          {
            title: 'Passes',
            head: ['Fasteners', 'Done by'],
            rows: done.map((by) => [{ text: 'inner bolts' }, { text: by }]),
          },
        ],
      });
    expect(compared(passes('Wren', 'not done'), passes('Wren', 'Teasel'))).toEqual([
      { where: 'Passes, inner bolts (2)', what: 'Done by', before: 'not done', now: 'Teasel' },
    ]);
  });
});

const readings = (...rows: [string, string, string, string][]) =>
  sheet({
    tables: [
      {
        title: 'Readings: main journals',
        part: 'readings',
        head: ['Part', 'Where', 'As typed', 'Size', 'When'],
        rows: rows.map(([where, text, size, at]) => [
          { text: 'M1' },
          { text: where },
          { text },
          { text: size },
          { text: '', at: `${at}T08:00:00.000Z` },
        ]),
      },
    ],
  });

describe('one changed reading (it made 17 differences)', () => {
  const before = readings(
    ['front', '59.984', '59.984 mm', '2026-02-03'],
    ['rear', '59.985', '59.985 mm', '2026-02-03'],
  );

  it('is one difference, of what was typed', () => {
    expect(
      compared(
        before,
        readings(['front', '59.980', '59.980 mm', '2026-02-04'], ['rear', '59.985', '59.985 mm', '2026-02-03']),
      ),
    ).toEqual([{ where: 'Readings: main journals, M1, front', what: 'As typed', before: '59.984', now: '59.980' }]);
  });

  it('sent again with the same figure is no difference', () => {
    expect(
      compared(
        before,
        readings(['front', '59.984', '59.984 mm', '2026-02-04'], ['rear', '59.985', '59.985 mm', '2026-02-04']),
      ),
    ).toEqual([]);
  });

  it('at a place before others moves none of the others', () => {
    expect(
      compared(
        readings(['rear', '59.985', '59.985 mm', '2026-02-03']),
        readings(['front', '59.984', '59.984 mm', '2026-02-03'], ['rear', '59.985', '59.985 mm', '2026-02-03']),
      ),
    ).toMatchObject([{ where: 'Readings: main journals, M1, front', what: 'reading', before: null }]);
  });
});

describe('a sheet in another unit', () => {
  const clearances = (unit: 'mm' | 'in', title: string, clearance: string): BuildSheet =>
    sheet({
      unit,
      tables: [{ title, part: 'result', head: ['Main', 'Clearance'], rows: [[{ text: 'M1' }, { text: clearance }]] }],
    });
  const before = clearances('mm', 'Mains, millimetres', '0.043 ± 0.004');

  it('differs in its unit, and not in every figure', () => {
    expect(compared(before, clearances('in', 'Mains, inches', '0.0017 ± 0.0002'))).toEqual([
      { where: 'The sheet', what: 'Unit', before: 'millimetres', now: 'inches' },
    ]);
  });

  it('still tells a figure that is another one', () => {
    expect(compared(before, clearances('in', 'Mains, inches', '0.0024 ± 0.0002'))).toHaveLength(2);
  });
});

describe('canonical JSON', () => {
  it('is the same however the members came, reads back, and tells every change', () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        const value: unknown = JSON.parse(text);
        const turned = (one: unknown): unknown => {
          if (Array.isArray(one)) return one.map(turned);
          if (typeof one !== 'object' || one === null) return one;
          return Object.fromEntries(
            Object.entries(one)
              .reverse()
              .map(([key, member]) => [key, turned(member)]),
          );
        };
        expect(canonicalJson(turned(value))).toBe(canonicalJson(value));
        expect(JSON.parse(canonicalJson(value))).toEqual(value);
      }),
    );
    const signOff = { revision: 1, signedAt: '2026-02-03T08:00:00.000Z', signedBy: 'Wren', reason: '', open: [] };
    const content = signedContent(sheet(), signOff);
    expect(signedContent(sheet({ notes: ['An aid .'] }), signOff)).not.toBe(content);
    expect(signedContent(sheet(), { ...signOff, revision: 2 })).not.toBe(content);
    expect(signedContent(sheet(), { ...signOff, open: ['Codes: not done'] })).not.toBe(content);
  });
});

describe('a build sheet as a file', () => {
  it('reads back, and is told where it is wrong', () => {
    expect(readBuildSheet(JSON.parse(JSON.stringify(sheet())))).toEqual({ ok: true, sheet: sheet() });
    const read = readBuildSheet({ ...sheet(), unit: 'furlong' });
    expect(read.ok ? [] : read.faults.map(({ path }) => path)).toEqual(['/unit']);
    expect(readBuildSheet({ ...sheet(), format: 'fettle.build-sheet/2' }).ok).toBe(false);
  });
});
