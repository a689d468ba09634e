import { describe, expect, it } from 'vitest';
import { marksOf, nextEdge, withMarks } from './nextBands.js';
import { EMPTY_BAND } from './typeText.js';

const band = (mark: string, low: string, high: string) => ({ ...EMPTY_BAND, mark, low, high });

describe('the bands after the first', () => {
  it('begin where the one before ends, upwards or downwards', () => {
    expect(nextEdge([])).toEqual({});
    expect(nextEdge([band('1', '64.000', '64.006'), EMPTY_BAND])).toEqual({ low: '64.006' });
    // Walls have gaps between: nothing is filled in.
    expect(nextEdge([band('1', '1.989', '1.991'), band('2', '1.992', '1.994')])).toEqual({});
    expect(nextEdge([band('1', '59.988', '59.994'), band('2', '59.982', '59.988')])).toEqual({ high: '59.982' });
  });

  it('take their marks from a row, or from one to another', () => {
    expect(marksOf('2 3, 4')).toEqual(['2', '3', '4']);
    expect(marksOf('b-e')).toEqual(['B', 'C', 'D', 'E']);
    expect(marksOf('2–5')).toEqual(['2', '3', '4', '5']);
    expect(marksOf('A-3')).toEqual([]);
    expect(marksOf('9-1')).toEqual([]);
    expect(marksOf(' ')).toEqual([]);
  });

  it('are as wide as the last one typed', () => {
    const up = withMarks([band('1', '64.000', '64.006')], ['2', '3'], 'mm');
    expect(up?.map(({ mark, low, high }) => [mark, low, high])).toEqual([
      ['1', '64.000', '64.006'],
      ['2', '64.006', '64.012'],
      ['3', '64.012', '64.018'],
    ]);
    const down = withMarks([band('A', '2.3622', '2.3625'), band('B', '2.3619', '2.3622')], ['C'], 'in');
    expect(down?.at(-1)).toMatchObject({ mark: 'C', low: '2.3616', high: '2.3619' });
    const walls = withMarks([band('1', '1.989', '1.991'), band('2', '1.992', '1.994')], ['3'], 'mm');
    expect(walls?.at(-1)).toMatchObject({ mark: '3', low: '1.995', high: '1.997' });
    expect(withMarks([band('1', '64.000', '')], ['2'], 'mm')).toBeNull();
    expect(withMarks([], ['2'], 'mm')).toBeNull();
  });
});
