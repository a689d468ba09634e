import { describe, expect, it } from 'vitest';
import { likelyFigures, likelyParts } from './likelyFigures.js';
import { nanometres } from './nanometres.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const inch = (value: number) => nanometres(Math.round(value * 25.4e6));

describe('a figure that cannot be right (3 typed for 0.003 was taken)', () => {
  it('is asked about with what it may have been', () => {
    expect(likelyFigures(inch(3), 'in', { low: 0, high: inch(0.02) })![0]).toEqual({
      nm: inch(0.003),
      question: 'Decimal point slipped?',
    });
    expect(likelyFigures(um(1_500), 'mm', { low: um(100), high: um(300) })).toMatchObject([{ nm: um(150) }]);
    expect(likelyFigures(inch(0.0985), 'in', { low: um(80), high: um(120) })).toMatchObject([
      { nm: inch(0.0985 / 25.4), question: 'Typed in millimetres?' },
    ]);
  });

  it('is not asked about where it can be right, and is not explained by what it cannot be', () => {
    expect(likelyFigures(um(120), 'mm', { low: um(100), high: um(300) })).toBeNull();
    expect(likelyFigures(um(0), 'mm', { low: um(100), high: um(300) })).toEqual([]);
  });
});

describe('a sum that gives no clearance', () => {
  const good = { bore: um(64_010), journal: um(59_985), upper: um(1_995), lower: um(1_995) };
  const limits = { low: um(20), high: um(50) };

  it('is asked about: a thimble turn, a decimal point', () => {
    expect(likelyParts({ ...good, journal: um(59_485) }, 'mm', limits)).toContainEqual({
      part: 'journal',
      nm: um(59_985),
      question: 'One thimble turn (0.5 mm) off?',
      clearance: um(35),
    });
    expect(likelyParts({ ...good, upper: um(19_950) }, 'mm', limits)).toContainEqual({
      part: 'upper',
      nm: um(1_995),
      question: 'Decimal point slipped?',
      clearance: um(35),
    });
  });

  it('is left alone where it is tight, loose or worn', () => {
    expect(likelyParts(good, 'mm', limits)).toBeNull();
    expect(likelyParts({ ...good, journal: um(59_850) }, 'mm', limits)).toBeNull();
    expect(likelyParts({ ...good, journal: um(60_100) }, 'mm', null)).toBeNull();
  });
});
