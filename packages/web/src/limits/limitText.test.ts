import { nanometres } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { EMPTY_LIMIT, readLimit, textOfLimit } from './limitText.js';

describe('limits as they are typed', () => {
  it('takes a whole limit in any unit and gives it back to the last digit', () => {
    const { limit, faults } = readLimit({ low: '.0015', high: '81.28 um', source: ' book, p. 2 ' }, 'in');
    expect(faults).toEqual({});
    expect(limit).toEqual({ low: 38_100, high: 81_280, source: 'book, p. 2' });
    expect(textOfLimit(limit, 'in')).toEqual({ low: '0.0015', high: '0.0032', source: 'book, p. 2' });
  });

  it('takes nothing for not given yet', () => {
    expect(readLimit(EMPTY_LIMIT, 'mm')).toEqual({ limit: null, faults: {} });
    expect(textOfLimit(null, 'mm')).toEqual(EMPTY_LIMIT);
  });

  it.each([
    [{ low: '64', high: '', source: 'book' }, { high: 'The high limit is missing.' }],
    [{ low: '64', high: '64.019', source: ' ' }, { source: 'Enter the book and page.' }],
    [{ low: '64.02', high: '64', source: 'book' }, { low: 'Above the high limit; swap them.' }],
    [
      { low: '64 cm', high: '65', source: 'book' },
      { low: '“cm” is not a unit used here. Use mm, in, thou, tenths or µm.' },
    ],
  ])('says which box of %j wants what', (text, faults) => {
    expect(readLimit(text, 'mm')).toEqual({ limit: null, faults });
  });

  it('lets a clearance limit be below zero', () => {
    const { limit } = readLimit({ low: '-0.005', high: '0.010', source: 'book' }, 'mm');
    expect(textOfLimit(limit, 'mm').low).toBe('-0.005');
    expect(limit?.low).toBe(nanometres(-5_000));
  });
});
