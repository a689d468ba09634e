import { describe, expect, it } from 'vitest';
import { clearanceAim } from '../clearance/clearanceAim.js';
import { oilClearance } from '../clearance/oilClearance.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { nanometres } from '../measure/nanometres.js';
import { leastChoice } from './joint/leastChoice.js';
import { type Choice, choicesOf } from './model/choice.js';
import { leastAssignment } from './search/leastAssignment.js';

const HALVES = ['std', 'thin', 'thick'] as const;
const STEP = { std: 0, thin: 5, thick: -5 } as const;

/** The least cost of serving all, in the search's own terms; null when nothing fits. */
function leastCostOf(options: readonly (readonly Choice[])[], capacity: readonly number[]): number | null {
  const answer = leastChoice({
    ...choicesOf(options),
    capacity: Float64Array.from(capacity),
    group: new Int32Array(options.length),
    spread: Float64Array.of(Number.POSITIVE_INFINITY),
  });
  return answer.status === 'optimal' ? answer.cost : null;
}

/** The least sum with the largest cost of all as small as it can be. */
function smallestLargest(options: readonly (readonly Choice[])[], capacity: readonly number[]) {
  const costs = [...new Set(options.flat().map(({ cost }) => cost))].sort((a, b) => a - b);
  for (const most of costs) {
    const within = options.map((list) => list.filter(({ cost }) => cost <= most));
    const sum = within.some((list) => list.length === 0) ? null : leastCostOf(within, capacity);
    if (sum !== null) return { min_max: most, sum_at_min_max: sum };
  }
  return null;
}

describe('selection under stock, deviations summed', () => {
  // Constructed, each verified by enumerating all allowed combinations; unlimited stock would give 7 and 11.
  it.each([
    {
      standard: [17, 20, 23, 31, 28],
      stock: { std: 7, thin: 3, thick: 3 },
      expected: { min_sum: 7, min_max: 2, sum_at_min_max: 7 },
    },
    {
      standard: [29, 10, 39, 36],
      stock: { std: 5, thin: 3, thick: 2 },
      expected: { min_sum: 24, min_max: 9, sum_at_min_max: 24 },
    },
  ])('$standard', ({ standard, stock, expected }) => {
    const options = standard.map((clearance) =>
      HALVES.flatMap((upper, above) =>
        HALVES.map((lower, below) => {
          const deviation = clearance + STEP[upper] + STEP[lower] - 25;
          return { cost: Math.abs(deviation), deviation, uses: [above, below, -1] as const };
        }),
      ),
    );
    const capacity = HALVES.map((half) => stock[half]);
    expect({ min_sum: leastCostOf(options, capacity), ...smallestLargest(options, capacity) }).toEqual(expected);
  });
});

describe('assignments', () => {
  const optionsOf = (costs: readonly (readonly number[])[]) =>
    costs.map((row) => row.map((cost, column) => ({ cost, deviation: 0, uses: [-1, -1, column] as const })));

  // Three workers, three tasks: a widely used illustration of the Hungarian method, as remembered; verified with scipy.
  it('three workers and three tasks cost 15', () => {
    const costs = [
      [8, 4, 7],
      [5, 2, 3],
      [9, 4, 8],
    ];
    const { total, columns } = leastAssignment(costs.flat(), 3, 3);
    expect([total, Array.from(columns)]).toEqual([15, [0, 2, 1]]);
    expect(leastCostOf(optionsOf(costs), [1, 1, 1])).toBe(15);
  });

  // Constructed: both assignments listed.
  it('of least sum and of smallest largest cost can differ', () => {
    const options = optionsOf([
      [0, 4],
      [4, 7],
    ]);
    expect(leastCostOf(options, [1, 1])).toBe(7);
    expect(smallestLargest(options, [1, 1])).toEqual({ min_max: 4, sum_at_min_max: 8 });
  });

  // One-dimensional transport (monotone rearrangement): pairing by rank is least; verified by brute force.
  it('of bores to shafts by rank are least', () => {
    const [shafts, bores] = [
      [3, 9, 1, 7],
      [12, 4, 6, 8],
    ];
    const costs = bores.map((bore) => shafts.map((shaft) => Math.abs(bore - shaft - 3)));
    expect(leastCostOf(optionsOf(costs), [1, 1, 1, 1])).toBe(2);
    const ranked = bores.toSorted((a, b) => a - b).map((bore, at) => bore - shafts.toSorted((a, b) => a - b)[at]! - 3);
    expect(ranked.reduce((sum, off) => sum + Math.abs(off), 0)).toBe(2);
  });
});

describe('rules of thumb', () => {
  const inch = (value: number) => lengthOfNumber(value, 'in');

  // Shop practice: 0.001 in of diametral clearance per inch of journal.
  it.each([
    [2.45, 0.00245],
    [2.1, 0.0021],
  ])('a journal of %f in is aimed at %f in', (journal, aim) => {
    expect(clearanceAim({ kind: 'per-inch' }, null, inch(journal), nanometres(0))).toBe(inch(aim));
  });

  // Shop practice: a journal ground 0.010 in under takes halves 0.005 in thicker each, and then runs as before.
  it('a journal ground 0.010 in under takes halves 0.005 in thicker each', () => {
    const exact = (size: number) => ({ nominal: inch(size), smallest: inch(size), largest: inch(size), count: 1 });
    const at = (journal: number, wall: number) =>
      oilClearance({
        bore: exact(2.6412),
        journal: exact(journal),
        upperWall: inch(wall),
        lowerWall: inch(wall),
        upperBand: undefined,
        lowerBand: undefined,
        offset: nanometres(0),
      }).nominal;
    expect(at(2.4487 - 0.01, 0.095 + 0.005)).toBe(at(2.4487, 0.095));
  });
});
