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
  facts: [{ label: 'Choice accepted', text: 'Wren', at: '2026-02-03T07:00:00.000Z' }],
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

describe('two sheets of one engine', () => {
  it('differ in nothing where only who made them, and when, is another', () => {
    expect(
      comparedSheets(sheet(), sheet({ madeAt: '2026-03-01T08:00:00.000Z', madeBy: 'Teasel', version: 9 })),
    ).toEqual([]);
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
        { title: 'Put together', head: ['Station', 'Turns'], rows: [[{ text: 'M1' }, { text: 'free and even' }]] },
      ],
    });
    expect(comparedSheets(sheet(), later)).toEqual([
      { where: 'The sheet', what: 'Choice accepted', before: 'Wren, 2026-02-03T07:00:00.000Z', now: null },
      { where: 'The sheet', what: 'Thrust at', before: null, now: 'main 2' },
      { where: 'Mains, millimetres, M1', what: 'Bore', before: '64.010 ± 0.003', now: '64.010 ± 0.004' },
      { where: 'Mains, millimetres, M2', what: 'row', before: '64.011, close', now: null },
      { where: 'Mains, millimetres, M3', what: 'row', before: null, now: '64.012, inside' },
      { where: 'Put together, M1', what: 'row', before: null, now: 'free and even' },
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
    expect(comparedSheets(passes('Wren', 'not done'), passes('Wren', 'Teasel'))).toEqual([
      { where: 'Passes, inner bolts (2)', what: 'Done by', before: 'not done', now: 'Teasel' },
    ]);
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
