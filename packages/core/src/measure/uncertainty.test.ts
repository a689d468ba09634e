import { describe, expect, it } from 'vitest';
import { acceptance } from './acceptance.js';
import { budgetUncertainty, ownBudget, sumBudget } from './budget.js';
import { coverageFactor } from './coverageFactor.js';
import { calibrationDue, readingUncertainty, usualInstrument } from './instrument.js';
import { nanometres } from './nanometres.js';
import { normalChance } from './normalChance.js';
import { simulatedBudget } from './simulated.js';
import { fittedLine, uncertaintyOnLine, valueOnLine } from './straightLine.js';
import { capabilityIndex, combinedUncertainty, evenly, swinging, triangularly, weightedMean } from './uncertainty.js';

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
    // The expanded uncertainty that covers 99 %: 2.92 times 32 nm.
    expect(coverageFactor(whole.freedom, 0.99)).toBeCloseTo(2.92, 2);
    expect(Math.abs(coverageFactor(whole.freedom, 0.99) * whole.u - 93)).toBeLessThan(0.6);
  });

  // Table G.2 of JCGM 100:2008, two-sided; from memory, recomputed independently.
  it.each([
    [1, 0.95, 12.71],
    [5, 0.95, 2.57],
    [16, 0.99, 2.92],
    [50, 0.95, 2.01],
    [Number.POSITIVE_INFINITY, 0.95, 1.96],
  ])('with %s degrees of freedom and a share of %s are covered by a factor of %s', (freedom, share, factor) => {
    expect(coverageFactor(freedom, share)).toBeCloseTo(factor, 2);
  });

  it('of limits that are known by their shape alone are those of the distributions (JCGM 100:2008, 4.3; JCGM 101:2008, 6.4)', () => {
    // Drawn as the distributions are defined: the sum of two even draws, and the sine of an even angle, at evenly spread places.
    const places = Array.from({ length: 2_000 }, (_, at) => (at + 0.5) / 2_000);
    const deviation = (values: readonly number[]) =>
      Math.sqrt(values.reduce((sum, one) => sum + one ** 2, 0) / values.length);
    const quantile = (p: number) => (p < 0.5 ? Math.sqrt(2 * p) - 1 : 1 - Math.sqrt(2 * (1 - p)));
    expect(deviation(places.map(quantile))).toBeCloseTo(triangularly(1), 3);
    expect(deviation(places.map((p) => Math.sin(2 * Math.PI * p)))).toBeCloseTo(swinging(1), 6);
    expect(deviation(places.map((p) => 2 * p - 1))).toBeCloseTo(evenly(1), 4);
  });

  // JCGM 106:2012: T / (4 u); from memory, a single division.
  it('say how often they go into a tolerance', () => {
    expect(capabilityIndex(0.003 - 0.0015, 0.0001)).toBeCloseTo(3.75, 9);
  });

  // JCGM 100:2008, H.3: corrections of a thermometer, told at 20 °C and at 30 °C; from memory, recomputed independently.
  it('of a line through readings are those of the thermometer of GUM H.3', () => {
    const warm = [21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.01, 26.511];
    const read = [-0.171, -0.169, -0.166, -0.159, -0.164, -0.165, -0.156, -0.157, -0.159, -0.161, -0.16];
    const line = fittedLine(
      warm.map((at, index) => ({ at, value: read[index]! })),
      20,
    );
    expect(line.intercept).toBeCloseTo(-0.1712, 4);
    expect(line.slope).toBeCloseTo(0.00218, 5);
    expect(line.uIntercept).toBeCloseTo(0.0029, 4);
    expect(line.uSlope).toBeCloseTo(0.00067, 5);
    expect(line.correlation).toBeCloseTo(-0.93, 3);
    expect(valueOnLine(line, 30)).toBeCloseTo(-0.1494, 4);
    expect(uncertaintyOnLine(line, 30)).toBeCloseTo(0.0041, 4);
    expect(() => fittedLine([{ at: 1, value: 1 }])).toThrow('two places');
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
    const source = (key: string, u: number, shape: 'normal' | 'even', sensitivity = 1) => ({
      key,
      words: key,
      u,
      shape,
      sensitivity,
    });
    const budget = [
      source('bore', 1_500, 'normal'),
      source('journal', 1_200, 'normal', -1),
      source('upper', evenly(2_000), 'even', -1),
      source('lower', evenly(2_000), 'even', -1),
    ];
    const drawn = simulatedBudget(55_000, budget, limits, 200_000, 5);
    const { u } = combinedUncertainty([{ u: 1_500 }, { u: 1_200 }, { u: evenly(2_000) }, { u: evenly(2_000) }]);
    expect(drawn.mean).toBeCloseTo(55_000, -2);
    expect(drawn.u / u).toBeCloseTo(1, 2);
    expect(drawn.inside).toBeCloseTo(normalChance(55_000, u, limits), 2);
    expect(evenVariance(2_000)).toBeCloseTo(2_000 ** 2 / 3, 6);
  });
});

describe('a budget', () => {
  const source = (key: string, u: number, sensitivity = 1) => ({
    key,
    words: key,
    u,
    shape: 'normal' as const,
    sensitivity,
  });

  // T03-14 of the check values: the bore gauge is zeroed on the micrometer that read the journal, whose error stands in both.
  it('adds up what two results have in common, or lets it fall out', () => {
    const micrometer = source('micrometer', evenly(0.0001));
    const bore = [micrometer, source('gauge', 0.00005)];
    const journal = [micrometer, source('zeroing', 0.00005)];
    expect(
      budgetUncertainty(
        sumBudget([
          [bore, 1],
          [journal, -1],
        ]),
      ),
    ).toBeCloseTo(7.0710678e-5, 12);
    // Of the sum of both the same error counts twice.
    expect(
      budgetUncertainty(
        sumBudget([
          [bore, 1],
          [journal, 1],
        ]),
      ),
    ).toBeCloseTo(Math.hypot(2 * evenly(0.0001), 0.00005, 0.00005), 12);
    expect(ownBudget(bore, [journal]).map(({ key }) => key)).toEqual(['gauge']);
    expect(
      sumBudget([
        [bore, 1],
        [bore, -1],
      ]),
    ).toEqual([]);
  });

  /** GUM H.2 (T03-07; from memory, verified by computation): resistance, reactance and impedance from five sets that were read together. */
  it('by common source agrees with correlation coefficients: GUM H.2', () => {
    const sets = {
      V: [5.007, 4.994, 5.005, 4.99, 4.999],
      I: [0.019663, 0.019639, 0.01964, 0.019685, 0.019678],
      phi: [1.0456, 1.0438, 1.0468, 1.0428, 1.0433],
    };
    const mean = (list: readonly number[]) => list.reduce((sum, value) => sum + value, 0) / list.length;
    const [V, I, phi] = [mean(sets.V), mean(sets.I), mean(sets.phi)];
    // A set is a source: what it moves each mean by, of which there are five with four degrees of freedom.
    const budgetOf = (list: readonly number[]) =>
      list.map((value, at) =>
        source(`set ${at}`, 1, (value - mean(list)) / Math.sqrt(list.length * (list.length - 1))),
      );
    const of = (dV: number, dI: number, dPhi: number) =>
      sumBudget([
        [budgetOf(sets.V), dV],
        [budgetOf(sets.I), dI],
        [budgetOf(sets.phi), dPhi],
      ]);
    const Z = V / I;
    const R = of(Math.cos(phi) / I, (-Z / I) * Math.cos(phi), -Z * Math.sin(phi));
    const X = of(Math.sin(phi) / I, (-Z / I) * Math.sin(phi), Z * Math.cos(phi));
    expect([Z * Math.cos(phi), Z * Math.sin(phi), Z]).toEqual([
      expect.closeTo(127.732, 2),
      expect.closeTo(219.847, 2),
      expect.closeTo(254.26, 2),
    ]);
    expect(budgetUncertainty(R)).toBeCloseTo(0.071, 3);
    // The example gives three places, of values that it rounded before.
    expect(Math.abs(budgetUncertainty(X) - 0.295)).toBeLessThan(0.0006);
    expect(budgetUncertainty(of(1 / I, -Z / I, 0))).toBeCloseTo(0.236, 3);
    const impedance = of(1 / I, -Z / I, 0);
    const correlation = (one: typeof R, other: typeof R) =>
      one.reduce(
        (sum, term) => sum + term.sensitivity * (other.find(({ key }) => key === term.key)?.sensitivity ?? 0),
        0,
      ) /
      budgetUncertainty(one) /
      budgetUncertainty(other);
    expect(correlation(R, X)).toBeCloseTo(-0.588, 3);
    expect(correlation(R, impedance)).toBeCloseTo(-0.485, 3);
    expect(correlation(X, impedance)).toBeCloseTo(0.993, 3);
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
