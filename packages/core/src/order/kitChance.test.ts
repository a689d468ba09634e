import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { bandShares } from './bandShares.js';
import { kitChance, wilsonInterval } from './kitChance.js';
import { type KitQuestion, kitQuestionSchema, readKitQuestion } from './kitQuestion.js';

/** One main, bore and journal over bands of the given widths (µm); one pair of halves at the middle of the limits. */
function oneStation(boreWidth: number, journalWidth: number, room: number, engines: number): KitQuestion {
  const mid = 0.035;
  const gap = 4 + mid;
  return kitQuestionSchema.parse({
    format: 'fettle.kit-question/1',
    unit: 'mm',
    stations: [
      {
        id: 'M1',
        family: 'main',
        bore: { low: 60 + gap - boreWidth / 2000, high: 60 + gap + boreWidth / 2000 },
        journal: { low: 60 - journalWidth / 2000, high: 60 + journalWidth / 2000 },
        aim: mid,
        low: mid - room / 1000,
        high: mid + room / 1000,
      },
    ],
    shells: [{ id: 'plain', family: 'main', series: 'A', half: 'either', wall: 2, stock: 2 }],
    engines,
  });
}

/**
 * Chance that the difference of two sizes, each even over its band of width a and b around the same middle, lies within ±r: one less
 * the two corners cut off the rectangle, (a/2 + b/2 − r)² / (a·b) together, for r between |a − b|/2 and (a + b)/2. Elementary
 * geometry.
 */
function closedForm(a: number, b: number, r: number): number {
  return 1 - ((a + b) / 2 - r) ** 2 / (a * b);
}

describe('the chance of a kit', () => {
  it.each([
    [20, 18, 6],
    [20, 18, 12],
    [30, 24, 9],
  ])('agrees with the closed form for one station: bands of %i and %i µm, ±%i µm', (bore, journal, room) => {
    const truth = closedForm(bore, journal, room);
    const { chance, low, high, engines } = kitChance(oneStation(bore, journal, room, 20_000), seeded(7));
    expect(engines).toBe(20_000);
    expect(Math.abs(chance - truth)).toBeLessThan(4 * Math.sqrt((truth * (1 - truth)) / engines));
    expect(low).toBeLessThan(chance);
    expect(high).toBeGreaterThan(chance);
  });

  it('has a confidence interval that holds the truth about 95 times in 100', () => {
    const question = oneStation(20, 18, 6, 300);
    const truth = closedForm(20, 18, 6);
    let held = 0;
    for (let seed = 1; seed <= 200; seed += 1) {
      const { low, high } = kitChance(question, seeded(seed));
      if (low <= truth && truth <= high) held += 1;
    }
    expect(held).toBeGreaterThan(180);
    expect(held).toBeLessThanOrEqual(200);
  });

  it('grows with the kit on the same engines, and says when it was stopped', () => {
    const question = oneStation(20, 18, 6, 2000);
    const more = {
      ...question,
      shells: [
        ...question.shells,
        { ...question.shells[0]!, id: 'thin', wall: 1.997 },
        { ...question.shells[0]!, id: 'thick', wall: 2.003 },
      ],
    };
    expect(kitChance(more, seeded(3)).chance).toBeGreaterThan(kitChance(question, seeded(3)).chance);
    let asked = 0;
    const stopped = kitChance(question, seeded(3), {
      isStopped: () => {
        asked += 1;
        return asked > 100;
      },
    });
    expect(stopped.engines).toBeGreaterThan(20);
    expect(stopped.engines).toBeLessThan(101);
    expect(kitChance({ ...question, shells: [] }, seeded(1)).chance).toBe(0);
  });

  it('counts a short kit: two mains that need the same pair cannot both have it', () => {
    const [station] = oneStation(2, 2, 6, 50).stations;
    const question = { ...oneStation(2, 2, 6, 50), stations: [station!, { ...station!, id: 'M2' }] };
    expect(kitChance(question, seeded(1)).chance).toBe(0);
    const enough = { ...question, shells: question.shells.map((shell) => ({ ...shell, stock: 4 })) };
    expect(kitChance(enough, seeded(1)).chance).toBe(1);
  });

  // Wilson's interval for 81 of 263 (a textbook case, from memory, verified by the formula): 0.255 to 0.366.
  it('uses Wilson’s interval', () => {
    const { low, high } = wilsonInterval(81, 263);
    expect([low.toFixed(3), high.toFixed(3)]).toEqual(['0.255', '0.366']);
    expect(wilsonInterval(0, 0)).toEqual({ low: 0, high: 1 });
  });

  it('names the path of every fault of a question', () => {
    const question = oneStation(20, 18, 6, 10);
    const answer = readKitQuestion({
      ...question,
      stations: [{ ...question.stations[0], bore: { low: 65, high: 64 } }],
      engines: 0,
    });
    expect(answer.ok ? [] : answer.faults.map(({ path }) => path)).toEqual(['/stations/0/bore/low', '/engines']);
    const twice = readKitQuestion({ ...question, shells: [...question.shells, question.shells[0]] });
    expect(twice.ok ? [] : twice.faults).toMatchObject([{ path: `/shells/${question.shells.length}/id` }]);
  });
});

describe('bands that were seen', () => {
  const bands = (counts: readonly number[]) =>
    counts.map((count, at) => ({ low: 64 + at * 0.005, high: 64 + at * 0.005, count }));
  const station = (id: string) => ({
    id,
    family: 'main' as const,
    bore: { low: 64, high: 64.015 },
    journal: { low: 59.985, high: 59.985 },
    boreSeen: 'mainBore',
    aim: 0.025,
    low: 0.024,
    high: 0.026,
  });
  /** Four bands of one size each; only the wall for the first is on the shelf. */
  const question = (counts: readonly number[], mains = 1) =>
    kitQuestionSchema.parse({
      format: 'fettle.kit-question/1',
      unit: 'mm',
      stations: Array.from({ length: mains }, (_, at) => station(`M${at + 1}`)),
      seen: { mainBore: bands(counts) },
      shells: (['upper', 'lower'] as const).map((half) => ({
        id: half,
        family: 'main',
        series: 'A',
        half,
        wall: 1.995,
        stock: 9,
      })),
      rules: { mixedHalves: false },
      engines: 6000,
    });

  it('come as often as their posterior says: one main has the mean of the Dirichlet distribution', () => {
    for (const counts of [
      [0, 0, 0, 0],
      [30, 10, 0, 0],
    ]) {
      const { chance } = kitChance(question(counts), seeded(3));
      const [first] = bandShares(counts.map((count, at) => ({ key: String(at), count })));
      expect(Math.abs(chance - first!.share)).toBeLessThan(0.02);
    }
  });

  it('are known no better than they are: mains of one engine go together, as the shares of the next engine do', () => {
    const counts = [3, 1, 0, 0];
    const { chance } = kitChance(question(counts, 3), seeded(5));
    // Closed form: three in a row of a Dirichlet-multinomial, a(a+1)(a+2) / A(A+1)(A+2) with a = 3.5 and A = 6.
    expect(Math.abs(chance - (3.5 * 4.5 * 5.5) / (6 * 7 * 8))).toBeLessThan(0.02);
    expect(chance).toBeGreaterThan((3.5 / 6) ** 3 + 0.03);
  });

  it('are refused where a station names a list that is not there', () => {
    const asked = readKitQuestion({ ...question([1]), seen: {} });
    expect(asked.ok ? [] : asked.faults).toContainEqual({
      path: '/stations/0/boreSeen',
      message: '“mainBore” is not in seen: name one of its lists',
    });
  });
});
