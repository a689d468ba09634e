import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { kitAdvice } from './kitAdvice.js';
import { kitChance } from './kitChance.js';
import { type KitQuestion, kitQuestionSchema } from './kitQuestion.js';

/**
 * Mains whose bore is even over 20 µm, with a journal of one size: the gap is even over 20 µm. Four grades, each of which makes the
 * clearance right over 5 µm of it and no other does: every grade has a chance of a quarter at every main.
 */
function quarters(mains: number, engines: number, stock: number[] = [0, 0, 0, 0], prices = [1, 1, 1, 1]): KitQuestion {
  const wall = (grade: number) => 1.99 + grade * 0.0025;
  return kitQuestionSchema.parse({
    format: 'fettle.kit-question/1',
    unit: 'mm',
    stations: Array.from({ length: mains }, (_, at) => ({
      id: `M${at + 1}`,
      family: 'main',
      bore: { low: 64.0, high: 64.02 },
      journal: { low: 59.985, high: 59.985 },
      aim: 0.0375,
      low: 0.035,
      high: 0.04,
    })),
    shells: stock.flatMap((count, grade) =>
      (['upper', 'lower'] as const).map((half) => ({
        id: `${half} ${grade}`,
        family: 'main',
        series: 'A',
        half,
        wall: wall(grade),
        stock: count,
        price: prices[grade]!,
      })),
    ),
    rules: { mixedHalves: false },
    engines,
  });
}

const uppers = (list: readonly { id: string; count: number }[]) =>
  Object.fromEntries(list.filter(({ id }) => id.startsWith('upper')).map(({ id, count }) => [id.slice(6), count]));

describe('advice on what to order', () => {
  // Closed form: with k of the four grades one main is fitted with a chance of k/4.
  it.each([
    [0.2, 1],
    [0.45, 2],
    [0.7, 3],
    [0.95, 4],
  ])('for one main and a chance of %f takes %i grades, and tells their chance', (target, grades) => {
    const advice = kitAdvice(quarters(1, 6000), target, seeded(3))!;
    expect(Object.keys(uppers(advice.shelf))).toHaveLength(grades);
    expect(advice.shelf.every(({ count }) => count === 1)).toBe(true);
    expect(Math.abs(advice.chance.chance - grades / 4)).toBeLessThan(0.03);
    expect(advice.chance.low).toBeLessThan(grades / 4);
    expect(advice.chance.high).toBeGreaterThanOrEqual(grades === 4 ? 0.999 : grades / 4);
    expect(advice.isReached).toBe(true);
    // One more grade brings a quarter, one less costs a quarter.
    if (grades < 4) expect(Math.abs(advice.more[0]!.by - 0.25)).toBeLessThan(0.03);
    expect(advice.more).toHaveLength(4 - grades);
    for (const { by } of advice.less) expect(Math.abs(by + 0.25)).toBeLessThan(0.03);
  });

  /** Chance that a shelf of n sets of each grade covers two mains: 1 less the pairs that both want the last set. */
  it('counts sets: two mains need two sets of a grade in one engine of four', () => {
    const one = kitAdvice(quarters(2, 8000), 0.7, seeded(5))!;
    // One set of each of four grades: the second main must want another than the first: 3/4.
    expect(uppers(one.shelf)).toEqual({ 0: 1, 1: 1, 2: 1, 3: 1 });
    expect(Math.abs(one.chance.chance - 0.75)).toBeLessThan(0.02);
    // Each set more covers one of the four equal pairs: 1/16.
    expect(one.more).toHaveLength(4);
    for (const { by } of one.more) expect(Math.abs(by - 1 / 16)).toBeLessThan(0.01);
    expect(kitAdvice(quarters(2, 2000), 1, seeded(5))!.shelf.every(({ count }) => count === 2)).toBe(true);
  });

  it('counts what is on the shelf, orders the rest, and never asks to take anything off it', () => {
    const advice = kitAdvice(quarters(1, 4000, [3, 0, 0, 0]), 0.7, seeded(2))!;
    expect(uppers(advice.shelf)['0']).toBe(3);
    expect(Object.keys(uppers(advice.order))).toHaveLength(2);
    expect(uppers(advice.order)['0']).toBeUndefined();
    expect(Math.abs(advice.before.chance - 0.25)).toBeLessThan(0.03);
    expect(advice.price).toBe(4);
  });

  it('leaves out the dearest where chances are alike', () => {
    const advice = kitAdvice(quarters(1, 4000, [0, 0, 0, 0], [1, 9, 1, 1]), 0.7, seeded(4))!;
    expect([Object.keys(uppers(advice.shelf)), advice.price]).toEqual([['0', '2', '3'], 6]);
  });

  it('says when no kit can reach what is asked for', () => {
    const [station] = quarters(1, 2000).stations;
    const wide = { ...quarters(1, 2000), stations: [{ ...station!, bore: { low: 64, high: 64.04 } }] };
    const advice = kitAdvice(wide, 0.9, seeded(1))!;
    expect(advice.isReached).toBe(false);
    expect(Math.abs(advice.ceiling.chance - 0.5)).toBeLessThan(0.04);
    expect(advice.chance.chance).toBe(advice.ceiling.chance);
  });

  it('is no smaller by luck: exhaustive search over all kits finds none smaller on the same engines', () => {
    const question = quarters(2, 400);
    const advice = kitAdvice(question, 0.85, seeded(9))!;
    const halves = advice.shelf.reduce((sum, { count }) => sum + count, 0);
    const chanceWith = (counts: number[]) => {
      const shells = question.shells.map((shell, at) => ({ ...shell, stock: counts[Math.floor(at / 2)]! }));
      return kitChance({ ...question, shells }, seeded(9)).chance;
    };
    let smallest = Number.POSITIVE_INFINITY;
    for (let code = 0; code < 81; code += 1) {
      const counts = [0, 1, 2, 3].map((grade) => Math.floor(code / 3 ** grade) % 3);
      const size = 2 * counts.reduce((sum, count) => sum + count, 0);
      if (size < smallest && chanceWith(counts) >= 0.85) smallest = size;
    }
    expect(halves).toBe(smallest);
  });

  it('tells how far it is, can be stopped, and says the same for the same seed', () => {
    const stages = new Set<string>();
    const question = quarters(1, 1000);
    const advice = kitAdvice(question, 0.6, seeded(6), { onKitProgress: ({ stage }) => stages.add(stage) });
    expect([...stages]).toEqual(['drawing', 'trimming', 'checking']);
    expect(kitAdvice(question, 0.6, seeded(6))).toEqual(advice);
    expect(kitAdvice(question, 0.9, seeded(6), { isStopped: () => true })).toBeNull();
  });
});
