import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { stripClearance, stripFor, stripRead } from './stripClearance.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const width = (value: number) => ({ text: String(value), unit: 'mm' as const, nm: um(value * 1000) });

describe('a gauging strip', () => {
  // Check values T09-01 to T09-11: area conservation, constructed; widths in mm for a strip of so many mm.
  it.each([
    [0.1, 0.025, 0.31416],
    [0.1, 0.05, 0.15708],
    [0.15, 0.025, 0.70686],
    [0.15, 0.05, 0.35343],
    [0.2, 0.025, 1.2566],
    [0.2, 0.05, 0.62832],
    [0.25, 0.025, 1.9635],
    [0.25, 0.05, 0.98175],
  ])('of %s mm at a clearance of %s mm is pressed %s mm wide', (diameter, clearance, wide) => {
    expect(stripClearance(diameter * 1e6, wide * 1e6) / 1e6).toBeCloseTo(clearance, 5);
  });

  // T09-13: dc/c = −dw/w; 5 % too wide is 4.76 % too little. T09-14: with round edges the strip is 1.7 % wider than the model.
  it('tells too little where its width is read too wide', () => {
    const one = stripClearance(um(200), um(628.32));
    expect(stripClearance(um(200), um(628.32 * 1.05)) / one - 1).toBeCloseTo(-0.047619, 4);
    expect(stripClearance(um(200), um(639.05)) / one).toBeCloseTo(1 / 1.01707, 4);
  });

  it('gives the taper from its two ends, and nothing before a width was read', () => {
    const widths = { front: width(0.62832), rear: width(0.7854) };
    expect(stripRead({ diameter: um(200), widths })).toEqual({ clearance: um(45), taper: um(10) });
    expect(stripRead({ diameter: um(200), widths: { front: widths.front, rear: null } })).toEqual({
      clearance: um(50),
      taper: null,
    });
    expect(stripRead({ diameter: um(200), widths: { front: null, rear: { ...width(1), nm: null } } })).toBeNull();
  });

  it('is chosen for the clearance that is expected (common practice)', () => {
    expect([20, 40, 70, 110, 200, 240].map((value) => stripFor(um(value)))).toEqual([
      null,
      'fine',
      'medium',
      'medium',
      'coarse',
      null,
    ]);
  });
});
