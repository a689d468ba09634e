import { describe, expect, it } from 'vitest';
import { acceptance } from './acceptance.js';
import { calibrationDue, readingUncertainty, usualInstrument } from './instrument.js';
import { nanometres } from './nanometres.js';
import { normalChance } from './normalChance.js';
import { simulated } from './simulated.js';
import { combinedUncertainty, evenly, weightedMean } from './uncertainty.js';

/** Variance of something known to lie within ±half, evenly. */
const evenVariance = (half: number) => evenly(half) ** 2;

describe('uncertainties together', () => {
  // JCGM 100:2008 (GUM), example H.1, calibration of a gauge block of 50 mm; figures from memory, recomputed independently.
  it('are those of the end gauge of GUM H.1', () => {
    const difference = combinedUncertainty([
      { u: 13 / Math.sqrt(5), freedom: 24 },
      { u: 10 / 2.57, freedom: 5 },
      { u: 20 / 3, freedom: 8 },
    ]);
    expect(difference.u).toBeCloseTo(9.7, 1);
    expect(difference.freedom).toBeCloseTo(25.6, 1);
    const length = 50.000623e6;
    const whole = combinedUncertainty([
      { u: 25, freedom: 18 },
      difference,
      // The gauge is 0.1 K below 20 °C: the two coefficients may differ by 1e-6/K at most.
      { u: evenly(1e-6), sensitivity: -length * -0.1, freedom: 50 },
      // The two temperatures may differ by 0.05 K at most.
      { u: evenly(0.05), sensitivity: -length * 11.5e-6, freedom: 2 },
    ]);
    expect(whole.u).toBeCloseTo(31.7, 0);
    expect(Math.round(whole.u)).toBe(32);
    expect(whole.freedom).toBeCloseTo(16.7, 1);
  });

  // T03-13 and T03-14 of the check values: constructed, verified by simulation there.
  it('of a clearance are the root of the sum of squares; what is common to both sizes falls out', () => {
    const micrometer = evenly(0.0001);
    const warm = evenly(1) * 2.45 * 1.15e-5;
    const { u } = combinedUncertainty([{ u: micrometer }, { u: 0.00005 }, { u: 0.00005 }, { u: warm }]);
    expect(u).toBeCloseTo(9.273e-5, 8);
    expect(combinedUncertainty([{ u: 0.00005 }, { u: 0.00005 }]).u).toBeCloseTo(7.0711e-5, 9);
  });

  it('agree with drawing (JCGM 101)', () => {
    const limits = { low: 25_000, high: 60_000 };
    const drawn = simulated(
      [
        { kind: 'normal', mean: 64_012_000, u: 1_500 },
        { kind: 'normal', mean: 59_981_000, u: 1_200 },
        { kind: 'even', low: 1_988_000, high: 1_992_000 },
        { kind: 'even', low: 1_984_000, high: 1_988_000 },
      ],
      ([bore, journal, upper, lower]) => bore! - journal! - upper! - lower!,
      limits,
      200_000,
      5,
    );
    const { u } = combinedUncertainty([{ u: 1_500 }, { u: 1_200 }, { u: evenly(2_000) }, { u: evenly(2_000) }]);
    expect(drawn.mean).toBeCloseTo(55_000, -2);
    expect(drawn.u / u).toBeCloseTo(1, 2);
    expect(drawn.inside).toBeCloseTo(normalChance(55_000, u, limits), 2);
    expect(evenVariance(2_000)).toBeCloseTo(2_000 ** 2 / 3, 6);
  });
});

describe('conformity', () => {
  // JCGM 106:2012, normal model without prior knowledge: check values T03-16 to T03-22, from memory, verified by computation.
  it.each([
    [0.0029, 0.0001, 0.841345],
    [0.003, 0.0001, 0.5],
    [0.0031, 0.0001, 0.158655],
    [0.0016, 0.0002, 0.691462],
  ])('%s in with u %s is inside with a chance of %s', (read, u, chance) => {
    expect(normalChance(read, u, { low: 0.0015, high: 0.003 })).toBeCloseTo(chance, 6);
  });

  it('of one expanded uncertainty as guard band accepts what is inside with 97.7 %', () => {
    const limits = { low: 0.0015, high: 0.003 };
    const inner = acceptance(limits, 0.0001, 0.97725)!;
    expect(inner.high).toBeCloseTo(0.0028, 8);
    expect(normalChance(inner.high, 0.0001, limits)).toBeCloseTo(0.97725, 5);
  });

  it('for a given chance accepts as far as that chance goes, and nothing where the limits are too narrow', () => {
    const limits = { low: 20_000, high: 50_000 };
    const inner = acceptance(limits, 2_000, 0.95)!;
    expect(normalChance(inner.low, 2_000, limits)).toBeCloseTo(0.95, 6);
    expect(normalChance(inner.high, 2_000, limits)).toBeCloseTo(0.95, 6);
    expect(normalChance(inner.low - 20, 2_000, limits)).toBeLessThan(0.95);
    expect(acceptance(limits, 0, 0.95)).toEqual(limits);
    expect(acceptance(limits, 20_000, 0.95)).toBeNull();
  });
});

describe('an instrument', () => {
  const gauge = usualInstrument('boreGauge', 'mm');

  it('is known better from several readings, but never better than its setting', () => {
    // By hand: 1² + 1² + 1² + 0.5²/3 = 3.0833 µm² for one, 1² + 2.0833/4 for four.
    expect(readingUncertainty(gauge, 1)).toBeCloseTo(1000 * Math.sqrt(3 + 0.25 / 3), 6);
    expect(readingUncertainty(gauge, 4)).toBeCloseTo(1000 * Math.sqrt(1 + (2 + 0.25 / 3) / 4), 6);
    expect(readingUncertainty(gauge, 1e9)).toBeCloseTo(1000, 3);
  });

  it('is due so many months after its calibration, on the last day of a shorter month', () => {
    const due = (calibratedOn: string | null, calibrateAfterMonths: number | null) =>
      calibrationDue({ calibratedOn, calibrateAfterMonths });
    expect(due('2026-11-25', 12)).toBe('2027-11-25');
    expect(due('2026-08-31', 6)).toBe('2027-02-28');
    expect([due(null, 6), due('2026-08-31', null)]).toEqual([null, null]);
  });
});

describe('several results for one figure', () => {
  it('are weighed by how well each is known, and known less well where they lie apart', () => {
    // By hand: weights 1 and 1/4.
    const { mean, u, birge } = weightedMean([
      { value: 3_000, u: 1_000 },
      { value: 5_000, u: 2_000 },
    ]);
    expect([mean, u]).toEqual([expect.closeTo(3_400, 6), expect.closeTo(1_000 / Math.sqrt(1.25), 6)]);
    expect(birge).toBeLessThan(1);
    const apart = weightedMean([
      { value: nanometres(0), u: 1_000 },
      { value: nanometres(8_000), u: 1_000 },
    ]);
    expect([apart.mean, apart.birge]).toEqual([expect.closeTo(4_000, 6), expect.closeTo(Math.sqrt(32), 9)]);
    expect(apart.u).toBeCloseTo(4_000, 6);
  });
});
