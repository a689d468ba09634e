import { describe, expect, it } from 'vitest';
import { studyOrder, studyPlanSchema } from './studyPlan.js';

const plan = {
  name: 'Bores',
  unit: 'mm' as const,
  parts: ['1', '2', '3', '4', '5', '6'],
  people: ['Wren', 'Teasel'],
  trials: 3,
  tolerance: null,
};

describe('the order of a gauge study', () => {
  it('has every part once in each round, another order each time, and the same one at every look', () => {
    const order = studyOrder('a study', plan, 'Wren');
    expect(order).toEqual(studyOrder('a study', plan, 'wren'));
    const rounds = [1, 2, 3].map((trial) => order.filter((one) => one.trial === trial).map(({ part }) => part));
    for (const round of rounds) expect([...round].sort()).toEqual(plan.parts);
    expect(new Set([...rounds, plan.parts].map((round) => round.join())).size).toBe(4);
    expect(studyOrder('a study', plan, 'Teasel')).not.toEqual(order);
  });

  it('gives each part each place about equally often', () => {
    const counts = new Map<string, number>();
    for (let at = 0; at < 3000; at += 1) {
      const [first] = studyOrder(`study ${at}`, plan, 'Wren');
      counts.set(first!.part, (counts.get(first!.part) ?? 0) + 1);
    }
    // 500 each; a standard deviation is 20.
    for (const part of plan.parts) expect(Math.abs(counts.get(part)! - 500)).toBeLessThan(90);
  });
});

describe('the plan of a gauge study', () => {
  const faults = (part: object) =>
    studyPlanSchema.safeParse({ ...plan, ...part }).error?.issues.map(({ message }) => message);

  it('needs two people, two parts and two readings, each name once', () => {
    expect(faults({})).toBeUndefined();
    expect(faults({ people: ['Wren'] })).toEqual(['two people at least']);
    expect(faults({ parts: ['1'] })).toEqual(['two parts at least']);
    expect(faults({ trials: 1 })).toEqual(['two readings of each part at least']);
    expect(faults({ people: ['Wren', 'wren'] })).toEqual(['“wren” is there twice']);
  });
});
