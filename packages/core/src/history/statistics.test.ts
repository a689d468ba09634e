import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { bandShares, drawnShares } from '../order/bandShares.js';
import { randomEffects } from './randomEffects.js';
import { reorderLevel } from './reorderLevel.js';
import { shareInside } from './shareInside.js';

/** Normal draws by Box and Muller from a seed. */
function normals(seed: number): () => number {
  const random = seeded(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

describe('what engines have in common', () => {
  it('of engines that do not differ is the mean weighed by what each is known to', () => {
    const found = randomEffects([
      { value: 2.0, u: 1 },
      { value: 2.4, u: 2 },
      { value: 1.8, u: 1 },
    ])!;
    expect(found.between).toBe(0);
    // By hand: weights 1, 1/4, 1.
    expect(found.mean).toBeCloseTo((2.0 + 2.4 / 4 + 1.8) / 2.25, 12);
    expect(found.u).toBeCloseTo(Math.sqrt(1 / 2.25), 12);
  });

  it('of engines that differ by far more than they are known is the plain mean', () => {
    const values = [1, 5, 9, 17];
    const found = randomEffects(values.map((value) => ({ value, u: 1e-6 })))!;
    expect(found.mean).toBeCloseTo(8, 6);
    // The variance of the sample: (49 + 9 + 1 + 81) / 3.
    expect(found.between ** 2).toBeCloseTo(140 / 3, 6);
    expect(found.u ** 2).toBeCloseTo(140 / 3 / 4, 6);
  });

  it('finds the spread between trials of the BCG vaccine (Colditz and others, 1994; counts and result from memory)', () => {
    // Tuberculosis and none, vaccinated and not.
    const trials = [
      [4, 119, 11, 128],
      [6, 300, 29, 274],
      [3, 228, 11, 209],
      [62, 13536, 248, 12619],
      [33, 5036, 47, 5761],
      [180, 1361, 372, 1079],
      [8, 2537, 10, 619],
      [505, 87886, 499, 87892],
      [29, 7470, 45, 7232],
      [17, 1699, 65, 1600],
      [186, 50448, 141, 27197],
      [5, 2493, 3, 2338],
      [27, 16886, 29, 17825],
    ].map((counts) => {
      const [a, b, c, d] = counts as [number, number, number, number];
      return {
        value: Math.log(a / (a + b) / (c / (c + d))),
        u: Math.sqrt(1 / a - 1 / (a + b) + 1 / c - 1 / (c + d)),
      };
    });
    const found = randomEffects(trials)!;
    expect(found.between ** 2).toBeCloseTo(0.318, 3);
    expect(found.mean).toBeCloseTo(-0.715, 3);
  });

  it('covers the next engine about nineteen times in twenty, where a plain mean does not', () => {
    const normal = normals(11);
    const random = seeded(12);
    const ROUNDS = 800;
    let [covered, plainly] = [0, 0];
    for (let round = 0; round < ROUNDS; round += 1) {
      const engine = () => {
        const u = 1 + 2 * random();
        return { value: 3 + 2 * normal() + u * normal(), u };
      };
      const engines = Array.from({ length: 8 }, engine);
      const next = 3 + 2 * normal();
      const found = randomEffects(engines)!;
      if (next >= found.next!.low && next <= found.next!.high) covered += 1;
      const whole = engines.reduce((sum, { u }) => sum + 1 / u ** 2, 0);
      const mean = engines.reduce((sum, { value, u }) => sum + value / u ** 2, 0) / whole;
      if (Math.abs(next - mean) <= 1.96 / Math.sqrt(whole)) plainly += 1;
    }
    expect(covered / ROUNDS).toBeGreaterThan(0.925);
    expect(covered / ROUNDS).toBeLessThan(0.99);
    expect(plainly / ROUNDS).toBeLessThan(0.5);
  });

  it('finds the spread that engines truly have, on average', () => {
    const normal = normals(3);
    const found = Array.from(
      { length: 600 },
      () => randomEffects(Array.from({ length: 12 }, () => ({ value: 2 * normal() + normal(), u: 1 })))!.between ** 2,
    );
    const mean = found.reduce((sum, one) => sum + one, 0) / found.length;
    expect(Math.abs(mean - 4)).toBeLessThan(0.25);
  });

  it('says nothing of the next engine from one or two', () => {
    expect(randomEffects([])).toBeNull();
    expect(randomEffects([{ value: 2, u: 1 }])).toMatchObject({ mean: 2, u: 1, between: 0, next: null });
    expect(
      randomEffects([
        { value: 2, u: 1 },
        { value: 9, u: 1 },
      ]),
    ).toMatchObject({ next: null });
  });
});

describe('a share', () => {
  it('has the interval of Clopper and Pearson (tables of the binomial, from memory)', () => {
    const five = shareInside(5, 10)!;
    expect([five.low.toFixed(4), five.high.toFixed(4)]).toEqual(['0.1871', '0.8129']);
    expect(shareInside(0, 10)!.high.toFixed(4)).toBe('0.3085');
    expect(shareInside(10, 10)!.low.toFixed(4)).toBe('0.6915');
    expect([shareInside(0, 10)!.low, shareInside(10, 10)!.high]).toEqual([0, 1]);
    expect(shareInside(0, 0)).toBeNull();
  });

  it('ends where the tail of the binomial is a fortieth', () => {
    const tail = (least: number, of: number, share: number) => {
      let [sum, term] = [0, (1 - share) ** of];
      for (let k = 0; k <= of; k += 1) {
        if (k >= least) sum += term;
        term *= ((of - k) / (k + 1)) * (share / (1 - share));
      }
      return sum;
    };
    for (const [count, of] of [
      [3, 12],
      [38, 40],
      [91, 100],
    ] as const) {
      const { low, high } = shareInside(count, of)!;
      expect(tail(count, of, low)).toBeCloseTo(0.025, 6);
      expect(1 - tail(count + 1, of, high)).toBeCloseTo(0.025, 6);
    }
  });
});

describe('how often bands come', () => {
  it('is even before anything was seen, and follows what was seen', () => {
    const none = bandShares(['A', 'B', 'C', 'D'].map((key) => ({ key, count: 0 })));
    expect(none.map(({ share }) => share)).toEqual([0.25, 0.25, 0.25, 0.25]);
    const many = bandShares([
      { key: 'A', count: 900 },
      { key: 'B', count: 100 },
    ]);
    expect(many[0]!.share).toBeCloseTo(0.9, 3);
    expect(many[0]!.u).toBeCloseTo(Math.sqrt((0.9 * 0.1) / 1000), 3);
  });

  it('drawn, has the mean and the spread of the posterior', () => {
    const seen = [
      { key: 'A', count: 7 },
      { key: 'B', count: 2 },
      { key: 'C', count: 0 },
    ];
    const random = seeded(5);
    const draws = Array.from({ length: 20_000 }, () => drawnShares(seen, random));
    for (const [at, { share, u }] of bandShares(seen).entries()) {
      const own = draws.map((one) => one[at]!);
      const mean = own.reduce((sum, one) => sum + one, 0) / own.length;
      const deviation = Math.sqrt(own.reduce((sum, one) => sum + (one - mean) ** 2, 0) / own.length);
      expect(Math.abs(mean - share)).toBeLessThan(0.005);
      expect(Math.abs(deviation - u)).toBeLessThan(0.005);
    }
  });
});

describe('when to order', () => {
  /** Engines that come in a time at a rate, one by one. */
  const come = (rate: number, months: number, random: () => number) => {
    let [count, time] = [0, -Math.log(1 - random()) / rate];
    while (time < months) {
      count += 1;
      time += -Math.log(1 - random()) / rate;
    }
    return count;
  };
  /** What an engine takes of a grade: mostly nothing, else two or four. */
  const takes = (random: () => number) => {
    const drawn = random();
    return drawn < 0.5 ? 0 : drawn < 0.8 ? 2 : 4;
  };
  const learned = (engines: readonly number[]) =>
    [2, 4].map((pieces) => ({ pieces, engines: engines.filter((one) => one === pieces).length }));

  it.each([
    [12, 1.5, 0.9],
    [24, 1, 0.95],
    [18, 3, 0.8],
  ])(
    'what was learned in %i months lasts %f months as often as is promised, whatever the true rate is',
    (months, lead, service) => {
      const random = seeded(months * 10 + lead);
      const ROUNDS = 6000;
      let [lasted, promised, plainly] = [0, 0, 0];
      for (let round = 0; round < ROUNDS; round += 1) {
        const rate = 1 + 4 * random();
        const before = Array.from({ length: come(rate, months, random) }, () => takes(random));
        const level = reorderLevel({ engines: before.length, months, taken: learned(before) }, lead, service);
        promised += level.service;
        const needed = Array.from({ length: come(rate, lead, random) }, () => takes(random)).reduce<number>(
          (sum, one) => sum + one,
          0,
        );
        if (needed <= level.level) lasted += 1;
        // Pieces counted one by one, as if each came for itself.
        const pieces = before.reduce<number>((sum, one) => sum + one, 0);
        const single = reorderLevel(
          { engines: pieces, months, taken: [{ pieces: 1, engines: pieces }] },
          lead,
          service,
        );
        if (needed <= single.level) plainly += 1;
      }
      expect(promised / ROUNDS).toBeGreaterThanOrEqual(service);
      expect(Math.abs(lasted / ROUNDS - promised / ROUNDS)).toBeLessThan(0.025);
      expect(plainly / ROUNDS).toBeLessThan(lasted / ROUNDS - 0.02);
    },
  );

  it('of single pieces at a rate that is well known is the tail of a Poisson distribution', () => {
    const months = 1e7;
    const { level, service } = reorderLevel(
      { engines: 3 * months, months, taken: [{ pieces: 1, engines: 3 * months }] },
      1,
      0.9,
    );
    // By hand, mean 3: e⁻³ (1 + 3 + 4.5 + 4.5 + 3.375 + 2.025).
    expect(level).toBe(5);
    expect(service).toBeCloseTo(Math.exp(-3) * 18.4, 5);
  });

  it('grows with the lead time and with what was used, and is bounded', () => {
    const of = (engines: number) => ({ engines, months: 12, taken: [{ pieces: 2, engines }] });
    const level = (engines: number, lead: number) => reorderLevel(of(engines), lead, 0.95).level;
    expect(level(24, 1)).toBeLessThan(level(24, 3));
    expect(level(24, 1)).toBeLessThan(level(48, 1));
    expect(level(24, 1) % 2).toBe(0);
    expect(level(0, 1)).toBe(0);
    expect(reorderLevel(of(1e6), 12, 0.99).level).toBe(10_000);
  });
});
