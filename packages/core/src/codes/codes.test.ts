import { describe, expect, it } from 'vitest';
import { chanceInside } from '../clearance/chanceInside.js';
import { clearanceOfBands } from '../clearance/clearanceOfBands.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { bandFaults, marksOf } from '../measure/sizeBand.js';
import { type CodeSheet, codeSheetSchema, readCodeSheet } from './codeSheet.js';
import { decodeRow } from './decodeRow.js';
import { generatedTable } from './generatedTable.js';
import { markDisagreement } from './markDisagreement.js';
import { cellInterval, comparedTables, gradesOfCell, selectionCodes } from './selectionTable.js';
import { type TableFinding, tableFindings } from './tableFindings.js';

const um = (value: number) => nanometres(value * 1000);

/**
 * An invented sheet on ISO 286 bands. 60 H6 is 0 to +19 µm and 60 h5 0 to −13 µm (ISO 286-2, from memory, checked by the
 * formulas of ISO 286-1); each is cut into bands.
 */
const sheetInput = {
  format: 'fettle.code-sheet/1' as const,
  name: 'Sedge 4',
  unit: 'mm' as const,
  rows: [
    { feature: 'mainJournal' as const, prefix: 'J', first: 'front' as const },
    { feature: 'pin' as const, prefix: 'P', first: 'rear' as const },
  ],
  main: {
    limits: { low: 0.014, high: 0.048, source: 'Sedge 4 workshop book, p. 40' },
    housing: [
      { mark: 'A', low: 64, high: 64.006 },
      { mark: 'B', low: 64.006, high: 64.012 },
      { mark: 'C', low: 64.012, high: 64.019 },
    ],
    journal: [
      { mark: '1', low: 59.9935, high: 60 },
      { mark: '2', low: 59.987, high: 59.9935 },
    ],
    grades: [
      { id: 'Teal', low: 1.9865, high: 1.9885 },
      { id: 'Plum', low: 1.9895, high: 1.9915 },
      { id: 'Rust', low: 1.9925, high: 1.9945 },
    ],
    table: {
      A: { 1: 'Teal', 2: 'Plum' },
      B: { 1: 'Plum', 2: 'Rust' },
      C: { 1: 'Rust', 2: 'Rust' },
    },
  },
};
const sheet: CodeSheet = codeSheetSchema.parse(sheetInput);
const codesOf = (change: Partial<typeof sheetInput.main> = {}) =>
  selectionCodes(codeSheetSchema.parse({ ...sheetInput, main: { ...sheetInput.main, ...change } }).main!, 'mm');
const kinds = (findings: readonly TableFinding[]) => [...new Set(findings.map(({ kind }) => kind))];
const wide = { low: 0.001, high: 0.1, source: 'wide' };

describe('clearance of bands', () => {
  it('is exactly the span of every combination of small bands', () => {
    for (let seed = 1; seed <= 60; seed += 1) {
      const random = seeded(seed);
      const band = (from: number) => {
        const low = from + Math.floor(random() * 20);
        return { low: nanometres(low), high: nanometres(low + Math.floor(random() * 5)) };
      };
      const [bore, journal, upper, lower] = [band(200), band(100), band(10), band(10)];
      const all: number[] = [];
      for (let b = bore.low as number; b <= bore.high; b += 1)
        for (let j = journal.low as number; j <= journal.high; j += 1)
          for (let u = upper.low as number; u <= upper.high; u += 1)
            for (let l = lower.low as number; l <= lower.high; l += 1) all.push(b - j - u - l);
      const { tightest, loosest } = clearanceOfBands(bore, journal, upper, lower);
      expect([tightest, loosest]).toEqual([Math.min(...all), Math.max(...all)]);
    }
  });

  it('of the whole ISO 286 fit 60 H6/h5 without shells is 0 to 32 µm', () => {
    const none = { low: nanometres(0), high: nanometres(0) };
    const [bore, shaft] = [
      { low: um(60_000), high: um(60_019) },
      { low: um(59_987), high: um(60_000) },
    ];
    expect(clearanceOfBands(bore, shaft, none, none)).toEqual({ tightest: 0, loosest: 32_000 });
  });
});

/**
 * Limit deviations for 60 mm, µm (ISO 286-2, from memory, checked by the formulas of ISO 286-1): H6 +19/0, H7 +30/0, h5 0/−13, h6 0/−19,
 * g6 −10/−29, e8 −60/−106, d9 −100/−174.
 */
const ISO_286 = {
  H6: [0, 19],
  H7: [0, 30],
  h5: [-13, 0],
  h6: [-19, 0],
  g6: [-29, -10],
  e8: [-106, -60],
  d9: [-174, -100],
} as const;

describe('ISO 286 fits of 60 mm as bands', () => {
  const none = { low: nanometres(0), high: nanometres(0) };
  const sized = (grade: keyof typeof ISO_286) => ({
    low: um(60_000 + ISO_286[grade][0]),
    high: um(60_000 + ISO_286[grade][1]),
  });
  const fits = [
    ['H6', 'h5', 0, 32],
    // Fit 60 H6/h6: 0 to 38 µm (ISO 286-2, from memory).
    ['H6', 'h6', 0, 38],
    ['H7', 'g6', 10, 59],
    ['H7', 'e8', 60, 136],
    ['H7', 'd9', 100, 204],
  ] as const;

  it.each(fits)(
    '%s/%s has its least and its largest clearance, and nothing is outside them',
    (hole, shaft, least, most) => {
      const bands = { bore: sized(hole), journal: sized(shaft), upper: none, lower: none };
      const { tightest, loosest } = clearanceOfBands(bands.bore, bands.journal, none, none);
      expect([tightest, loosest]).toEqual([um(least), um(most)]);
      expect(chanceInside(bands, { low: um(least), high: um(most) })).toBe(1);
      // A sum of two even sizes is symmetric about its middle.
      expect(chanceInside(bands, { low: um(least), high: um((least + most) / 2) })).toBeCloseTo(0.5, 6);
    },
  );

  it('cut into marks of equal steps have a table that keeps a clearance as narrow as two steps and two walls', () => {
    const steps = (grade: keyof typeof ISO_286, count: number, marks: string) =>
      Array.from({ length: count }, (_, at) => {
        const [low, high] = ISO_286[grade];
        const step = (high - low) / count;
        return { mark: marks[at]!, low: 60 + (low + at * step) / 1000, high: 60 + (low + (at + 1) * step) / 1000 };
      });
    const codes = selectionCodes(
      {
        limits: { low: 0.02, high: 0.045, source: 'ISO 286 bands, clearance invented' },
        aim: null,
        housing: steps('H7', 3, 'ABC').map(({ mark, low, high }) => ({ mark, low: low + 4, high: high + 4 })),
        journal: steps('g6', 2, '12'),
        grades: [1.9925, 1.9975, 2.0025, 2.0075, 2.0125].map((wall, at) => ({ id: `G${at}`, low: wall, high: wall })),
        table: {},
      },
      'mm',
    );
    const table = generatedTable(codes, { mixed: true })!;
    for (const { mark: housing } of codes.housing) {
      for (const { mark: journal } of codes.journal) {
        const interval = cellInterval({ ...codes, table }, housing, journal)!;
        expect(interval.loosest - interval.tightest).toBe(um(10 + 9.5));
        // Pairs step by 5 µm of walls in sum, so the middle is never further than 2.5 µm off the aim.
        expect(Math.abs((interval.tightest + interval.loosest) / 2 - codes.aim!)).toBeLessThanOrEqual(um(2.5));
      }
    }
    expect(tableFindings({ ...codes, table }).filter(({ kind }) => kind === 'not-monotone')).toEqual([]);
  });
});

describe('bands', () => {
  const band = (mark: string, low: number, high: number) => ({ mark, low: um(low), high: um(high) });

  it('are compared beyond their neighbours', () => {
    // The first reaches over all others: no gap behind the third, and it overlaps each of them.
    expect(bandFaults([band('1', 0, 30), band('2', 4, 8), band('3', 10, 12)], um(1))).toEqual([
      { kind: 'overlap', between: ['1', '2'], by: 4000 },
      { kind: 'overlap', between: ['1', '3'], by: 2000 },
    ]);
    expect(bandFaults([band('1', 0, 10), band('2', 2, 4), band('3', 15, 18)], um(1))).toEqual([
      { kind: 'overlap', between: ['1', '2'], by: 2000 },
      { kind: 'gap', between: ['1', '3'], by: 5000 },
    ]);
  });

  it('that touch or stand a last digit apart are neighbours; wider gaps and overlaps are told', () => {
    expect(bandFaults([band('1', 0, 6), band('2', 6, 12), band('3', 13, 18)], um(1))).toEqual([]);
    expect(bandFaults([band('3', 15, 18), band('1', 0, 6), band('2', 4, 12)], um(1))).toEqual([
      { kind: 'overlap', between: ['1', '2'], by: 2000 },
      { kind: 'gap', between: ['2', '3'], by: 3000 },
    ]);
  });

  it('know the marks of a size: two where they touch, none in a gap', () => {
    const bands = [band('1', 0, 6), band('2', 6, 12), band('3', 20, 24)];
    expect([6, 9, 15].map((size) => marksOf(bands, um(size)))).toEqual([['1', '2'], ['2'], []]);
  });

  it('tell a size that does not belong to its mark, beyond the uncertainty, with the likely reasons', () => {
    const bands = [band('1', 59_994, 60_000), band('2', 59_988, 59_994)];
    expect(markDisagreement('journal', um(59_993), '1', bands, um(2))).toBeNull();
    expect(markDisagreement('journal', um(59_990), '1', bands, um(2))).toMatchObject({
      side: 'under',
      by: 4000,
      fits: ['2'],
      reasons: ['worn', 'polished', 'reground', 'swapped-part', 'misread-mark'],
    });
    // A journal cannot grow: the mark was misread, or it is another shaft.
    expect(markDisagreement('journal', um(59_999), '2', bands, um(1))!.reasons).toEqual([
      'misread-mark',
      'swapped-part',
    ]);
    expect(markDisagreement('bore', um(60_010), '1', bands, um(1))!.reasons[0]).toBe('worn');
  });
});

describe('a selection table', () => {
  it('without a fault has no finding', () => {
    expect(tableFindings(codesOf())).toEqual([]);
  });

  it('gives each cell the exact interval of its bands', () => {
    expect(cellInterval(codesOf(), 'B', '1')).toEqual({ tightest: 23_000, loosest: 39_500 });
    expect(cellInterval(codesOf(), 'B', '9')).toBeNull();
  });

  const { table, housing, journal, grades } = sheetInput.main;
  const faulty: { name: string; change: Partial<typeof sheetInput.main>; kind: string }[] = [
    {
      name: 'a cell outside the limits',
      change: { limits: { low: 0.024, high: 0.048, source: 'p. 40' } },
      kind: 'outside-limits',
    },
    { name: 'a missing cell', change: { table: { ...table, C: { 1: 'Rust' } as never } }, kind: 'missing-cell' },
    {
      name: 'an unknown grade',
      change: { table: { ...table, A: { 1: 'Teel', 2: 'Plum' } }, limits: wide, grades: grades.slice(1) },
      kind: 'unknown-grade',
    },
    {
      name: 'an unknown mark',
      change: { table: { ...table, D: { 1: 'Rust', 2: 'Rust' } } as never },
      kind: 'unknown-mark',
    },
    {
      name: 'a grade that nothing leads to',
      change: { grades: [...grades, { id: 'Slate', low: 1.9955, high: 1.9975 }] },
      kind: 'unreachable-grade',
    },
    {
      name: 'a gap between bands',
      change: { housing: [housing[0]!, { ...housing[1]!, low: 64.009 }, housing[2]!], limits: wide },
      kind: 'gap',
    },
    {
      name: 'an overlap of bands',
      change: { journal: [{ ...journal[0]!, low: 59.992 }, journal[1]!], limits: wide },
      kind: 'overlap',
    },
    {
      name: 'a step the wrong way',
      change: { table: { ...table, B: { 1: 'Plum', 2: 'Teal' } }, limits: wide },
      kind: 'not-monotone',
    },
  ];
  it.each(faulty)('with $name tells just that', ({ change, kind }) => {
    expect(kinds(tableFindings(codesOf(change)))).toEqual([kind]);
  });

  it('says how far a cell leaves the limits, on which side', () => {
    const findings = tableFindings(codesOf({ limits: { low: 0.024, high: 0.038, source: 'p. 40' } }));
    expect(findings).toContainEqual({
      kind: 'outside-limits',
      housing: 'B',
      journal: '1',
      interval: { tightest: 23_000, loosest: 39_500 },
      below: 1000,
      above: 1500,
    });
  });

  it('made with mixed grades has the thinner half on the side that the rules say', () => {
    const codes = codesOf();
    const wall = (mark: string) => codes.grades.find((grade) => grade.mark === mark)!.low;
    for (const [thinner, sign] of [
      ['upper', -1],
      ['lower', 1],
    ] as const) {
      const cells = [0, 1, 2, 3, 4, 5].flatMap((off) => {
        const limits = { low: nanometres(0), high: um(100) };
        const aimed = { ...codes, aim: nanometres(codes.aim! + 1000 * off), limits };
        return Object.values(generatedTable(aimed, { mixed: true, thinner })!).flatMap((row) => Object.values(row));
      });
      const mixed = cells.flatMap((cell) => (typeof cell === 'string' ? [] : [cell]));
      expect(mixed.length).toBeGreaterThan(0);
      for (const { upper, lower } of mixed) expect(Math.sign(wall(upper) - wall(lower))).toBe(sign);
    }
  });

  it('made from bands, walls and an aim is never further outside than any other choice, cell by cell', () => {
    const codes = codesOf();
    for (const mixed of [false, true]) {
      const made = generatedTable(codes, { mixed })!;
      const outside = (cellTable: typeof made, h: string, j: string) => {
        const { tightest, loosest } = cellInterval({ ...codes, table: cellTable }, h, j)!;
        return [
          Math.max(0, codes.limits!.low - tightest) + Math.max(0, loosest - codes.limits!.high),
          Math.abs(tightest + loosest - 2 * codes.aim!),
        ] as const;
      };
      for (const { mark: h } of codes.housing) {
        for (const { mark: j } of codes.journal) {
          const best = outside(made, h, j);
          for (const upper of codes.grades) {
            for (const lower of codes.grades) {
              const apart = Math.abs(codes.grades.indexOf(upper) - codes.grades.indexOf(lower));
              if (apart > (mixed ? 1 : 0)) continue;
              const other = outside({ [h]: { [j]: { upper: upper.mark, lower: lower.mark } } }, h, j);
              expect(best[0] < other[0] || (best[0] === other[0] && best[1] <= other[1])).toBe(true);
            }
          }
          if (!mixed) expect(new Set(Object.values(gradesOfCell(made[h]![j]!))).size).toBe(1);
        }
      }
    }
  });

  it('is compared cell by cell; one grade and the same grade twice are alike', () => {
    const other = { ...table, A: { 1: { upper: 'Teal', lower: 'Teal' }, 2: { upper: 'Plum', lower: 'Teal' } } };
    expect(comparedTables(table, other)).toEqual([
      { housing: 'A', journal: '2', one: 'Plum', other: { upper: 'Plum', lower: 'Teal' } },
    ]);
    expect(comparedTables(table, { A: table.A })).toHaveLength(4);
  });
});

describe('a stamped row', () => {
  const [mains, pins] = sheet.rows;
  const marks = ['1', '2'];

  it('is read with its prefix, blanks or none, from the end that it is stamped from', () => {
    const read = (text: string, row = mains!) =>
      decodeRow(text, row, sheet.rows, marks, 5).marks.map(({ mark }) => mark);
    expect(read('J 1 1 2 1 1')).toEqual(['1', '1', '2', '1', '1']);
    expect(read('j11211')).toEqual(['1', '1', '2', '1', '1']);
    expect(read('P 1 1 1 2 2', pins!)).toEqual(['2', '2', '1', '1', '1']);
  });

  it('that belongs to another feature, lacks its prefix or has another count is told, with what was read', () => {
    expect(decodeRow('P 1 1 2 1 1', mains!, sheet.rows, marks, 5)).toMatchObject({ ok: false, reason: 'other-row' });
    expect(decodeRow('1 1 2 1 1', mains!, sheet.rows, marks, 5)).toMatchObject({ ok: false, reason: 'prefix' });
    const short = decodeRow('J 1 1 2', mains!, sheet.rows, marks, 5);
    expect(short).toMatchObject({ ok: false, reason: 'count', message: '3 marks are typed for 5 stations.' });
    expect(short.marks).toHaveLength(3);
    expect(decodeRow('  ', mains!, sheet.rows, marks, 5)).toMatchObject({ ok: false, reason: 'empty' });
  });

  it.each([
    ['J: 1 1 2', ['1', '1', '2']],
    ['J/1/1/2', ['1', '1', '2']],
    ['J=1.1.2', ['1', '1', '2']],
    ['J-112', ['1', '1', '2']],
  ])('may be written as %s', (text, read) => {
    const row = { feature: 'mainJournal', prefix: 'J', first: 'front' } as const;
    const decoded = decodeRow(text, row, [], marks, 3);
    expect([decoded.ok, decoded.marks.map(({ mark }) => mark)]).toEqual([true, read]);
  });

  it('that lacks its prefix is offered with it, and one that reads in two ways is asked about, not guessed', () => {
    const mains = sheet.rows.find(({ feature }) => feature === 'mainJournal')!;
    expect(decodeRow('1 1 2 1 1', mains, sheet.rows, ['1', '2'], 5)).toMatchObject({ offers: ['J 1 1 2 1 1'] });
    const row = { feature: 'mainJournal', prefix: '1', first: 'front' } as const;
    const two = decodeRow('11 2', row, [row], ['1', '2', '11'], 2);
    expect(two).toMatchObject({ ok: false, reason: 'two-ways', offers: ['1 1 2', '1 11 2'] });
    for (const [at, marks] of [
      ['1 1 2', ['1', '2']],
      ['1 11 2', ['11', '2']],
    ] as const) {
      const taken = decodeRow(at, row, [row], ['1', '2', '11'], 2);
      expect(taken).toMatchObject({ ok: true, marks: marks.map((mark) => ({ mark })) });
    }
  });

  it('tells its prefix from marks that look like one, its own and another row’s', () => {
    const own = { feature: 'mainJournal', prefix: 'J', first: 'front' } as const;
    const bare = { feature: 'mainBore', prefix: '', first: 'front' } as const;
    const read = (text: string, row: typeof own | typeof bare, of: readonly string[], count: number) => {
      const decoded = decodeRow(text, row, [own, { feature: 'pin', prefix: 'A', first: 'front' }], of, count);
      return [decoded.ok, decoded.marks.map(({ mark }) => mark)];
    };
    // No prefix of its own, and the pins' prefix is one of its marks.
    expect(read('A B A', bare, ['A', 'B'], 3)).toEqual([true, ['A', 'B', 'A']]);
    expect(decodeRow('A 1 2', bare, [{ feature: 'pin', prefix: 'A', first: 'front' }], ['X', 'Y'], 3)).toMatchObject({
      ok: false,
      reason: 'other-row',
    });
    // A prefix that is a mark, and marks that begin with it.
    expect(read('J J K', own, ['J', 'K'], 2)).toEqual([true, ['J', 'K']]);
    expect(read('J J1 J2', own, ['J1', 'J2'], 2)).toEqual([true, ['J1', 'J2']]);
    const unled = decodeRow('J1 J2', own, [], ['J1', 'J2'], 2);
    expect(unled).toMatchObject({ ok: false, reason: 'prefix' });
    expect(unled.marks.map(({ mark }) => mark)).toEqual(['J1', 'J2']);
    // Marks with punctuation in them.
    expect(read('J A-1 B.2', own, ['A-1', 'B.2'], 2)).toEqual([true, ['A-1', 'B.2']]);
  });

  it('that was typed from its other end says so', () => {
    const row = { feature: 'mainJournal', prefix: 'J', first: 'front' } as const;
    const turned = decodeRow('2 1 1 J', row, [], marks, 3);
    expect(turned).toMatchObject({ ok: false, reason: 'reversed' });
    expect(turned.marks.map(({ mark }) => mark)).toEqual(['1', '1', '2']);
  });

  it('offers one for a small l', () => {
    const row = { feature: 'mainJournal', prefix: '', first: 'front' } as const;
    expect(decodeRow('l 2', row, [], marks, 2).marks[0]).toMatchObject({ mark: null, lookalikes: ['1'] });
  });

  it('offers lookalikes and never guesses', () => {
    const [first] = decodeRow('J I 1', mains!, sheet.rows, marks, 2).marks;
    expect(first).toMatchObject({ typed: 'I', mark: null, lookalikes: ['1'] });
    const letters = decodeRow(
      '0 B II',
      { feature: 'mainBore', prefix: '', first: 'front' },
      [],
      ['O', '8', '11', 'B'],
      3,
    );
    expect(letters.marks.map(({ mark, lookalikes }) => [mark, lookalikes])).toEqual([
      [null, ['O']],
      ['B', ['8']],
      [null, ['11']],
    ]);
  });
});

describe('reading a code sheet', () => {
  it('names the path of every fault', () => {
    const twice = { ...sheetInput.main, housing: [...sheetInput.main.housing, { mark: 'A', low: 65, high: 64 }] };
    const answer = readCodeSheet({ ...sheetInput, main: twice });
    expect(answer.ok ? [] : answer.faults.map(({ path }) => path)).toContain('/main/housing/3/low');
    const named = { ...sheetInput.main, journal: [...sheetInput.main.journal, { mark: '1', low: 59, high: 59.1 }] };
    const second = readCodeSheet({ ...sheetInput, main: named });
    expect(second).toMatchObject({ ok: false, faults: [{ path: '/main/journal/2' }] });
  });
});
