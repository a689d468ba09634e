import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { clearanceAim } from './clearanceAim.js';

const um = (value: number) => nanometres(value * 1000);
const limits = { low: um(20), high: um(60) };

// Common practice: loose side for hard use, tight side for quiet running; no published figure says how far up the range.
describe('where the target is put between the limits', () => {
  it('is the middle, half way from there to either limit, or counted from the journal', () => {
    const at = (kind: 'middle' | 'loose-side' | 'tight-side' | 'per-inch') =>
      clearanceAim({ kind }, limits, um(50_000), um(0));
    expect(at('tight-side')).toBe(um(30));
    expect(at('middle')).toBe(um(40));
    expect(at('loose-side')).toBe(um(50));
    expect(at('per-inch')).toBe(um(50));
  });

  it('stays between the limits, with its extra on top, and needs them', () => {
    expect(clearanceAim({ kind: 'loose-side' }, limits, null, um(5))).toBe(um(55));
    expect(clearanceAim({ kind: 'tight-side' }, null, null, um(0))).toBeNull();
    for (const high of [20_001, 20_003, 33_333]) {
      const odd = { low: nanometres(20_000), high: nanometres(high) };
      for (const kind of ['tight-side', 'middle', 'loose-side'] as const) {
        const aim = clearanceAim({ kind }, odd, null, um(0))!;
        expect(Number.isInteger(aim) && aim >= odd.low && aim <= odd.high).toBe(true);
      }
    }
  });
});
