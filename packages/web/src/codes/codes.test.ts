import {
  chanceText,
  decodeRow,
  engineTypeSchema,
  type JobDocument,
  jobOfType,
  markDisagreement,
  nanometres,
  newEngineType,
  type StampedRow,
  usualLayout,
} from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { paintOf } from '../halves/paintOf.js';
import { decodedText } from './decodedText.js';
import { disagreementText } from './disagreementText.js';
import { withWord } from './markWords.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

function job(): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const type = engineTypeSchema.parse({
    ...newEngineType('Rush Twin', 'mm', usual.layout),
    rows: [
      { feature: 'mainBore', prefix: '', first: 'front' },
      { feature: 'mainJournal', prefix: 'J', first: 'rear' },
    ],
    main: {
      housing: [
        { mark: 'I', low: um(64_000), high: um(64_006) },
        { mark: 'II', low: um(64_006), high: um(64_012) },
        { mark: 'red', low: um(64_012), high: um(64_018) },
      ],
      journal: [{ mark: '1', low: um(59_982), high: um(59_988) }],
      grades: [{ mark: 'Thin', low: um(1_991), high: um(1_993), paint: 'green' }],
    },
  });
  return jobOfType('Rush Twin 1', type, { type: '7a100000-0000-4000-8000-000000000001', revision: 1 }, false);
}

describe('chances in words', () => {
  it.each([
    [0, '0 %'],
    [0.0004, 'below 1 %'],
    [0.5, '50 %'],
    [0.994, '99 %'],
    [0.9999, 'over 99 %'],
    [1, '100 %'],
  ])('%f is “%s”: never certain where it is not', (chance, text) => {
    expect(chanceText(chance)).toBe(text);
  });
});

describe('a row as it is typed', () => {
  it('is decoded with roman numbers and paint dabs, from the end that was set', () => {
    const read = (text: string, first: 'front' | 'rear' = 'front') =>
      decodedText(job(), 'mainBore', text, first)?.marks.map(({ mark }) => mark);
    expect(read('I, II, red')).toEqual(['I', 'II', 'red']);
    expect(read('I II red', 'rear')).toEqual(['red', 'II', 'I']);
    expect(decodedText(job(), 'mainBore', '   ', 'front')).toBeNull();
  });

  it('offers what looks alike, and guesses nothing', () => {
    const decoded = decodedText(job(), 'mainBore', '1 II red', 'front')!;
    expect(decoded.marks[0]).toMatchObject({ mark: null, typed: '1', lookalikes: ['I'] });
    expect(decodedText(job(), 'mainBore', '11 II red', 'front')!.marks[0]!.lookalikes).toEqual(['II']);
    expect(decodedText(job(), 'mainBore', 'Red II I', 'front')!.marks[0]).toMatchObject({
      mark: null,
      lookalikes: ['red'],
    });
  });

  it('has one of its marks put right without touching the others, whichever end it starts from', () => {
    const rear: StampedRow = { feature: 'mainJournal', prefix: 'J', first: 'rear' };
    const decoded = decodeRow('J l 1 1', rear, [], ['1'], 3);
    // The first sign is the rear main’s.
    expect(decoded.marks.find(({ mark }) => mark === null)?.station).toBe(3);
    expect(withWord(decoded.marks, rear, 3, '1')).toBe('J 1 1 1');
    const front: StampedRow = { feature: 'mainBore', prefix: '', first: 'front' };
    const bores = decodeRow('A 8 C', front, [], ['A', 'B', 'C'], 3);
    expect(withWord(bores.marks, front, 2, 'B')).toBe('A B C');
  });

  it('tells the row of another feature and a wrong count, and gives no marks to the wrong stations', () => {
    expect(decodedText(job(), 'mainBore', 'J 1 1 1', 'front')).toMatchObject({
      ok: false,
      reason: 'other-row',
      marks: [],
    });
    expect(decodedText(job(), 'mainJournal', 'J 1 1', 'rear')).toMatchObject({
      ok: false,
      reason: 'count',
      message: '2 marks are typed for 3 stations.',
    });
    expect(decodedText(job(), 'mainJournal', '1 1 1', 'rear')).toMatchObject({ ok: false, reason: 'prefix' });
  });
});

describe('a size against its mark', () => {
  const bands = [
    { mark: '1', low: um(59_982), high: um(59_988) },
    { mark: '2', low: um(59_976), high: um(59_982) },
  ];

  it('says how far, what may be behind it, and what it would be marked today', () => {
    const under = markDisagreement('journal', um(59_979), '1', bands, um(1))!;
    expect(disagreementText(under, 'mm')).toBe(
      '0.003 mm under the band of its mark. Likely: worn, polished, reground, another part was fitted, the mark is misread. It would be marked 2 today. The reading decides.',
    );
    const over = markDisagreement('journal', um(59_995), '1', bands, um(1))!;
    expect(disagreementText(over, 'mm')).toContain('Likely: the mark is misread, another part was fitted.');
    expect(disagreementText(over, 'mm')).toContain('No mark covers this size.');
  });

  it('is shown in the unit of the engine', () => {
    const over = markDisagreement(
      'bore',
      nanometres(2_540_000 + 25_400),
      'A',
      [{ mark: 'A', low: um(2_530), high: um(2_540) }],
      um(0),
    )!;
    expect(disagreementText(over, 'in')).toContain('0.0010 in over');
  });
});

describe('paint', () => {
  it('tells a grade of the sheet of its own family, and nothing else', () => {
    expect(paintOf(job(), 'main', 'Thin')).toBe('green');
    expect(paintOf(job(), 'rod', 'Thin')).toBeNull();
    expect(paintOf(job(), 'main', 'Thick')).toBeNull();
    expect(paintOf({ sheet: null }, 'main', 'Thin')).toBeNull();
  });
});
