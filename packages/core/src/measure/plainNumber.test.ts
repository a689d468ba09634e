import { describe, expect, it } from 'vitest';
import { plainNumber } from './plainNumber.js';

describe('a plain number', () => {
  it.each([
    ['12', 12],
    ['12,5', 12.5],
    [' 0.25 ', 0.25],
    ['.5', 0.5],
  ])('“%s” is one', (text, value) => {
    expect(plainNumber(text)).toBe(value);
  });

  it.each(['', ' ', '5.', '1e3', '0x10', '1 000', '1.2.3', '12 mm', '-1', '+1', 'Infinity'])('“%s” is none', (text) => {
    expect(plainNumber(text)).toBeNaN();
  });

  it.each([
    ['-1', -1],
    ['−2,5', -2.5],
    ['+3', 3],
  ])('“%s” is one where a sign may stand before it', (text, value) => {
    expect(plainNumber(text, true)).toBe(value);
  });
});
