import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { gaugeStudy, type StudyReading, studyOf, toleranceShare } from './gaugeStudy.js';

/** By person and trial the readings of the parts, one after the other. */
function readings(table: Readonly<Record<string, readonly (readonly number[])[]>>): StudyReading[] {
  return Object.entries(table).flatMap(([person, trials]) =>
    trials.flatMap((row, trial) =>
      row.map((value, part) => ({ part: String(part + 1), person, trial: String(trial + 1), value })),
    ),
  );
}

function worked(list: readonly StudyReading[]) {
  const read = studyOf(list);
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return gaugeStudy(read.study);
}

/**
 * Ten parts, three people, three readings each: the worked example of the measurement systems analysis manual of the automotive industry
 * (readings from memory; that they give its sums of squares to every digit shows that they are right).
 */
const MANUAL = readings({
  A: [
    [0.29, -0.56, 1.34, 0.47, -0.8, 0.02, 0.59, -0.31, 2.26, -1.36],
    [0.41, -0.68, 1.17, 0.5, -0.92, -0.11, 0.75, -0.2, 1.99, -1.25],
    [0.64, -0.58, 1.27, 0.64, -0.84, -0.21, 0.66, -0.17, 2.01, -1.31],
  ],
  B: [
    [0.08, -0.47, 1.19, 0.01, -0.56, -0.2, 0.47, -0.63, 1.8, -1.68],
    [0.25, -1.22, 0.94, 1.03, -1.2, 0.22, 0.55, 0.08, 2.12, -1.62],
    [0.07, -0.68, 1.34, 0.2, -1.28, 0.06, 0.83, -0.34, 2.19, -1.5],
  ],
  C: [
    [0.04, -1.38, 0.88, 0.14, -1.46, -0.29, 0.02, -0.46, 1.77, -1.49],
    [-0.11, -1.13, 1.09, 0.2, -1.07, -0.67, 0.01, -0.56, 1.45, -1.77],
    [-0.15, -0.96, 0.67, 0.11, -1.45, -0.49, 0.21, -0.49, 1.87, -2.16],
  ],
});

describe('a gauge study', () => {
  it('gives what the manual gives for its example', () => {
    const result = worked(MANUAL);
    const { part, person, interaction, repeat } = result.sums;
    for (const [got, wanted] of [
      [part, 88.3619],
      [person, 3.1673],
      [interaction, 0.359],
      [repeat, 2.7589],
      [result.repeatability.sd, 0.1999],
      [result.reproducibility.sd, 0.2268],
      [result.gauge.sd, 0.3024],
      [result.part.sd, 1.0423],
      [result.total, 1.0853],
    ] as const) {
      expect(got).toBeCloseTo(wanted, 4);
    }
    expect(result.percentGauge).toBeCloseTo(27.86, 2);
    expect([result.categories, result.isPooled, result.interaction]).toEqual([4, true, 0]);
    // F = 0.0199/0.0460 = 0.434 with 18 and 60 degrees of freedom: 0.974 in the manual's table.
    expect(result.interactionChance).toBeCloseTo(0.974, 3);
  });

  /**
   * NIST Statistical Reference Datasets, analysis of variance, SiRstv (lower level of difficulty; values from memory, verified by computation:
   * certified 5.11462616000000E-02 between and 2.16636560000000E-01 within). Two people who read all alike double both sums of squares.
   */
  it('has the sums of squares that NIST certifies, told twice', () => {
    const rows = [
      [196.3052, 196.124, 196.189, 196.2569, 196.3403],
      [196.3042, 196.3825, 196.1669, 196.3257, 196.0422],
      [196.1303, 196.2005, 196.2889, 196.0343, 196.1811],
      [196.2795, 196.1748, 196.1494, 196.1485, 195.9885],
      [196.2119, 196.1051, 196.185, 196.0052, 196.209],
    ];
    const trials = rows[0]!.map((_, trial) => rows.map((row) => row[trial]!));
    const { sums } = worked(readings({ one: trials, other: trials }));
    expect(sums.part / 2).toBeCloseTo(5.11462616e-2, 12);
    expect(sums.repeat / 2).toBeCloseTo(2.1663656e-1, 12);
    expect(sums.person).toBeCloseTo(0, 15);
    expect(sums.interaction).toBeCloseTo(0, 15);
  });

  /**
   * NIST, SmLs01 and SmLs07: nine treatments of 21, between 1.68 and within 1.80 by design (average and higher level of difficulty; pattern
   * from memory, sums by hand: 21 · Σ d² with d² = 0.01 eight times, and 180 · 0.01). The second has a million million in front.
   */
  it.each([0, 1_000_000_000_000])('keeps its digits with %f in front of every reading', (front) => {
    const centre = [1.4, 1.3, 1.5, 1.3, 1.5, 1.3, 1.5, 1.3, 1.5];
    const trials = Array.from({ length: 21 }, (_, trial) =>
      centre.map((middle) => front + middle + (trial === 0 ? 0 : trial % 2 === 1 ? -0.1 : 0.1)),
    );
    const { sums } = worked(readings({ one: trials, other: trials }));
    // A double has 4 digits left behind the point at 10¹².
    const places = front === 0 ? 9 : 2;
    expect(sums.part / 2).toBeCloseTo(1.68, places);
    expect(sums.repeat / 2).toBeCloseTo(1.8, places);
  });

  it('keeps an interaction that is significant', () => {
    // By hand: two parts, two people, two alike readings a cell; the people differ the other way round at the second part.
    const result = worked(
      readings({
        A: [
          [1, 5],
          [1.2, 5.2],
        ],
        B: [
          [3, 3],
          [3.2, 3.2],
        ],
      }),
    );
    expect(result.isPooled).toBe(false);
    // I = 2 · Σ 1² = 8 with one degree; E = 8 · 0.01 / 4 = 0.02; (8 − 0.02)/2 = 3.99.
    expect(result.interaction).toBeCloseTo(Math.sqrt(3.99), 9);
    expect(result.repeatability.sd).toBeCloseTo(Math.sqrt(0.02), 9);
    // O and P are smaller than I: their components are zero, none is below.
    expect([result.reproducibility.sd, result.part.sd, result.categories]).toEqual([0, 0, 1]);
  });

  it('of readings that are all alike has nothing to divide by, and says so', () => {
    const same = worked(
      readings({
        A: [
          [2, 2],
          [2, 2],
        ],
        B: [
          [2, 2],
          [2, 2],
        ],
      }),
    );
    expect([same.percentGauge, same.categories, same.total, same.isPooled]).toEqual([null, null, 0, true]);
    const parts = worked(
      readings({
        A: [
          [2, 3],
          [2, 3],
        ],
        B: [
          [2, 3],
          [2, 3],
        ],
      }),
    );
    expect([parts.percentGauge, parts.categories]).toEqual([0, null]);
  });

  it('has intervals that hold what is true about 95 times in a hundred', () => {
    const random = seeded(11);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const truth = { repeatability: 1, reproducibility: 1.2, gauge: Math.hypot(1, 1.2), part: 4 };
    const held = { repeatability: 0, reproducibility: 0, gauge: 0, part: 0 };
    const rounds = 400;
    for (let round = 0; round < rounds; round += 1) {
      const people = Array.from({ length: 5 }, () => truth.reproducibility * normal());
      const parts = Array.from({ length: 10 }, () => truth.part * normal());
      const result = worked(
        readings(
          Object.fromEntries(
            people.map((bias, who) => [String(who), [0, 1, 2].map(() => parts.map((size) => size + bias + normal()))]),
          ),
        ),
      );
      for (const name of Object.keys(held) as (keyof typeof held)[]) {
        const { low, high } = result[name].interval;
        if (low <= truth[name] && truth[name] <= high) held[name] += 1;
      }
    }
    // 95 % of 400 is 380 with a standard deviation of 4.4. The approximations are known to hold a little more or less.
    for (const count of Object.values(held)) {
      expect(count / rounds).toBeGreaterThan(0.92);
      expect(count / rounds).toBeLessThan(0.985);
    }
  });

  it('is refused with everything that it lacks', () => {
    const without = MANUAL.filter(({ part, person, trial }) => !(part === '7' && person === 'B' && trial === '2'));
    const read = studyOf([...without, MANUAL[0]!]);
    expect(read.ok ? [] : read.faults).toEqual([
      { kind: 'twice', part: '1', person: 'A', trial: '1' },
      { kind: 'missing', part: '7', person: 'B', trial: '2' },
    ]);
    const kinds = (list: readonly StudyReading[]) => {
      const one = studyOf(list);
      return one.ok ? [] : one.faults.map(({ kind }) => kind);
    };
    expect(kinds(MANUAL.filter(({ person }) => person === 'A'))).toEqual(['few-people']);
    expect(kinds(MANUAL.filter(({ trial }) => trial === '1'))).toEqual(['few-trials']);
    expect(kinds(MANUAL.filter(({ part }) => part === '1'))).toEqual(['few-parts']);
    expect(kinds([])).toEqual(['few-parts', 'few-people', 'few-trials']);
  });

  it('says how much of a tolerance reading takes up', () => {
    // Six standard deviations of 0.3024 in a tolerance of 8: 22.68 %.
    expect(toleranceShare(worked(MANUAL).gauge.sd, 8)).toBeCloseTo(22.68, 2);
  });
});
