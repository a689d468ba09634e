import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nanometres } from './nanometres.js';
import { parseLength } from './parseLength.js';
import { withSign } from './withSign.js';

const MM = nanometres(64_000_000);
const IN = nanometres(50_800_000);

describe('a bare figure on a gauge that is zeroed on a setting size', () => {
  it.each([
    ['0', '+0'],
    ['2', '+2'],
    ['1.5', '+1.5'],
    ['1,5', '+1,5'],
    ['12', '+12'],
    // Sizes, signed figures and figures with a unit stay as they are.
    ['64', '64'],
    ['64.0', '64.0'],
    ['64.012', '64.012'],
    ['64,01', '64,01'],
    ['-2', '-2'],
    ['+2', '+2'],
    ['2 mm', '2 mm'],
    ['.0015', '.0015'],
    ['0.015', '0.015'],
    ['', ''],
  ])('in millimetres, on 64.000: %s is %s', (typed, kept) => {
    expect(withSign(typed, 'mm', MM)).toBe(kept);
  });

  it.each([
    ['0', '+0'],
    // Two inches is what the gauge is zeroed on; nobody types a size of four decimals so.
    ['2', '+2'],
    ['2.5', '+2.5'],
    ['2.0003', '2.0003'],
    ['.0015', '.0015'],
  ])('in inches, on 2.0000: %s is %s', (typed, kept) => {
    expect(withSign(typed, 'in', IN)).toBe(kept);
  });

  it('is nothing without a setting size, and never changes a size that lies near the setting', () => {
    expect(withSign('2', 'mm', null)).toBe('2');
    fc.assert(
      fc.property(fc.integer({ min: -99_999, max: 99_999 }), (off) => {
        const text = ((64_000_000 + off) / 1e6).toFixed(3);
        expect(withSign(text, 'mm', MM)).toBe(text);
        const parsed = parseLength(withSign('3', 'mm', nanometres(64_000_000 + off)), {
          unit: 'mm',
          setting: nanometres(64_000_000 + off),
        });
        expect(parsed.ok && parsed.nm).toBe(64_030_000 + off);
      }),
    );
  });
});
