import {
  derivedUndersize,
  type EngineType,
  engineTypeSchema,
  nanometres,
  newEngineType,
  usualLayout,
} from '@fettle/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BLANK_TORQUE_LINE } from '../torque/torqueLineText.js';
import { readCell, textOfCell } from './cellText.js';
import { readType } from './readType.js';
import { shownTable, withBlock, withShown } from './tableBlock.js';
import { completed, EMPTY_BAND, inUnit, type TypeText, textOfType } from './typeText.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Sedge book, p. 3' });

function sedge(): EngineType {
  const usual = usualLayout(5, 8, 2, 3);
  if (!usual.ok) throw new Error(usual.message);
  const grades = [
    { mark: 'Teal', low: um(1988), high: um(1990), paint: 'green' },
    { mark: 'Sand', low: um(1991), high: um(1993), paint: null },
  ] as const;
  return engineTypeSchema.parse({
    ...newEngineType('Sedge 8', 'in', usual.layout),
    limits: { mainJournal: limit(59_976, 59_994), mainClearance: limit(20, 50), taper: limit(0, 5) },
    torque: [{ fastener: 'Main caps', steps: '25 · 50 N·m', lubricant: '', source: 'Sedge book, p. 5' }],
    rows: [{ feature: 'pin', prefix: 'P', first: 'rear' }],
    main: {
      housing: [{ mark: 'A', low: um(64_000), high: um(64_006) }],
      journal: [
        { mark: '1', low: um(59_988), high: um(59_994) },
        { mark: '2', low: um(59_982), high: um(59_988) },
      ],
      grades,
      table: { A: { 1: 'Teal', 2: { upper: 'Teal', lower: 'Sand' } } },
      undersizes: [derivedUndersize('0.25', um(250), limit(59_976, 59_994), grades)],
    },
  });
}

describe('a data sheet as text', () => {
  it('comes back as it was, in millimetres to the last digit', () => {
    const type: EngineType = { ...sedge(), unit: 'mm' };
    expect(readType(textOfType(type))).toEqual({ type, faults: {} });
  });

  it('comes back with its aims, what its rings settle, and where it has shims', () => {
    const figures = {
      endPlayAim: um(120),
      crushAim: um(100),
      crushAimAluminium: um(130),
      settle: um(12),
      joints: 'saddle' as const,
    };
    const type: EngineType = { ...sedge(), unit: 'mm', thrustKind: 'rings', ...figures };
    expect(readType(textOfType(type))).toEqual({ type, faults: {} });
    const wrong = {
      ...textOfType(type),
      figures: { endPlayAim: 'x', crushAim: '', crushAimAluminium: '', settle: '-1' },
    };
    expect(Object.keys(readType(wrong).faults)).toEqual(['figures.endPlayAim', 'figures.settle']);
    expect(readType(inUnit(textOfType(type), 'in')).type!.settle).toBeCloseTo(um(12), -3);
  });

  it('kept by an earlier build gets what has come to a data sheet since', () => {
    const now = textOfType(sedge());
    const { figures: _, limits, ...older } = { ...now, note: 'typed' };
    const { crush: _c, ...fewer } = limits;
    expect(completed({ ...older, limits: fewer } as TypeText, now)).toEqual({ ...now, note: 'typed' });
  });

  it('comes back in inches to a few nanometres', () => {
    const { type, faults } = readType(textOfType(sedge()));
    expect(faults).toEqual({});
    expect(Math.abs(type!.main.housing[0]!.high - um(64_006))).toBeLessThan(13);
  });

  const text = (): TypeText => textOfType({ ...sedge(), unit: 'mm' });
  const faulty: readonly { name: string; change: (text: TypeText) => TypeText; place: string }[] = [
    { name: 'no name', change: (old) => ({ ...old, name: ' ' }), place: 'name' },
    { name: 'too many mains', change: (old) => ({ ...old, mains: '40' }), place: 'mains' },
    { name: 'a throw too many', change: (old) => ({ ...old, throws: '0 90 180 270 0' }), place: 'throws' },
    {
      name: 'a limit without a source',
      change: (old) => ({ ...old, limits: { ...old.limits, endPlay: { low: '0.1', high: '0.2', source: '' } } }),
      place: 'limits.endPlay.source',
    },
    {
      name: 'a torque line without a source',
      change: (old) => ({ ...old, torque: [{ ...BLANK_TORQUE_LINE, fastener: 'Caps', steps: '50' }] }),
      place: 'torque.0.source',
    },
    {
      name: 'a torque that is no figure',
      change: (old) => ({
        ...old,
        torque: [{ ...BLANK_TORQUE_LINE, fastener: 'Caps', school: 'angle', final: 'x', angles: '60', source: 'p. 1' }],
      }),
      place: 'torque.0.final',
    },
    {
      name: 'a band that is upside down',
      change: (old) => ({
        ...old,
        main: { ...old.main, housing: [{ ...EMPTY_BAND, mark: 'A', low: '2', high: '1' }] },
      }),
      place: 'main.housing.0.low',
    },
    {
      name: 'a mark twice',
      change: (old) => ({ ...old, main: { ...old.main, grades: [...old.main.grades, old.main.grades[0]!] } }),
      place: 'main.grades.2.mark',
    },
    {
      name: 'a cell with a grade that there is not',
      change: (old) => ({ ...old, main: { ...old.main, cells: [['Tale', '']] } }),
      place: 'main.cells.0.0',
    },
    {
      name: 'an undersize without what the journal is ground to',
      change: (old) => {
        const [one] = old.main.undersizes;
        const empty = { low: '', high: '', source: '' };
        return { ...old, main: { ...old.main, undersizes: [{ ...one!, journal: empty }] } };
      },
      place: 'main.undersizes.0.journal.low',
    },
  ];
  it.each(faulty)('with $name tells just that place', ({ change, place }) => {
    expect(Object.keys(readType(change(text())).faults)).toEqual([place]);
  });

  it('keeps the cells of a table by the lines of their marks, an empty line in between or not', () => {
    const old = text();
    const [teal] = old.main.housing;
    const gap = { ...old, main: { ...old.main, housing: [EMPTY_BAND, teal!], cells: [['', ''], ...old.main.cells] } };
    expect(readType(gap).type?.main.table).toEqual(sedge().main.table);
    const shown = shownTable(['', 'A', 'B'], ['1', ' ', '2'], [[], ['a', 'locked', 'b']]);
    expect([shown.rows, shown.columns, shown.cells]).toEqual([
      ['A', 'B'],
      ['1', '2'],
      [
        ['a', 'b'],
        ['', ''],
      ],
    ]);
    expect(
      withShown([[], ['a', 'locked', 'b']], shown, [
        ['x', 'y'],
        ['z', ''],
      ]),
    ).toEqual([
      ['', '', ''],
      ['x', 'locked', 'y'],
      ['z', '', ''],
    ]);
  });

  it('is converted when its unit changes, and what is no length stays as typed', () => {
    const old = text();
    const odd = { ...old, limits: { ...old.limits, runout: { low: 'see p. 9', high: '0.0254', source: 'p. 9' } } };
    const inches = inUnit(odd, 'in');
    expect(inches.limits.runout).toEqual({ low: 'see p. 9', high: '0.0010', source: 'p. 9' });
    expect(inches.main.undersizes[0]!.amount).toBe('0.0098425');
    const back = readType(inUnit({ ...inches, limits: old.limits }, 'mm'));
    expect(back.type!.main.grades[0]!.low).toBe(um(1988));
  });

  it('passes over empty lines', () => {
    const old = text();
    const more = { ...old, main: { ...old.main, housing: [...old.main.housing, EMPTY_BAND] } };
    expect(readType(more)).toEqual({ type: { ...sedge(), unit: 'mm' }, faults: {} });
  });
});

describe('a cell of a table', () => {
  const grades = ['Teal', 'Tan', 'Sand', 'A/B'];
  it.each([
    ['teal', 'Teal'],
    ['s', 'Sand'],
    ['te / sand', { upper: 'Teal', lower: 'Sand' }],
    ['Teal+Sand', { upper: 'Teal', lower: 'Sand' }],
    ['Sand/s', 'Sand'],
    ['A/B', 'A/B'],
    ['', null],
  ])('reads %j', (typed, cell) => {
    expect(readCell(typed, grades)).toEqual({ cell, message: null });
  });

  it('does not guess between two grades that start alike, nor a third half', () => {
    expect(readCell('t', grades)).toMatchObject({ cell: null, message: expect.stringContaining('No grade “t”') });
    expect(readCell('Teal/Sand/Tan', grades)).toEqual({ cell: null, message: 'One grade, or upper/lower.' });
    expect(readCell('Teal', [])).toMatchObject({ message: 'No grade “Teal”: enter the grades first.' });
  });

  it('comes back from its text', () => {
    const names = fc.constantFrom('Teal', 'Tan', 'Sand');
    fc.assert(
      fc.property(names, names, (upper, lower) => {
        const cell = upper === lower ? upper : { upper, lower };
        expect(readCell(textOfCell(cell), grades).cell).toEqual(cell);
      }),
    );
  });
});

describe('a block from a spreadsheet', () => {
  const table = { rows: ['A', 'B'], columns: ['1', '2'], cells: [['x', '']] };

  it('goes in from where it was pasted, and tells what found no place', () => {
    expect(
      withBlock(
        table,
        [
          ['p', 'q'],
          ['r', 's'],
        ],
        { row: 1, column: 0 },
      ),
    ).toEqual({
      cells: [
        ['x', ''],
        ['p', 'q'],
      ],
      left: ['r', 's'],
    });
  });

  it('goes by its marks where it has them, in any order', () => {
    const block = [
      ['', '2', '1'],
      ['B', 'b2', 'b1'],
      ['A', 'a2', 'a1'],
    ];
    expect(withBlock(table, block, { row: 1, column: 1 })).toEqual({
      cells: [
        ['a1', 'a2'],
        ['b1', 'b2'],
      ],
      left: [],
    });
  });
});
