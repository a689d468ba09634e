import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.js';
import { chiSquareTail } from '../measure/chiSquareTail.js';
import { formatLength } from '../measure/formatLength.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import type { Unit } from '../measure/unit.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { readingDoubts } from './readingDoubts.js';

const usual = usualLayout(5, 4, 1, 3);
if (!usual.ok) throw new Error(usual.message);
const { layout } = usual;
const jobIn = (unit: Unit) => ({
  ...newJob('Sedge 4', unit, layout, { block: 'iron', caps: 'iron', rods: 'steel' }),
  limits: { mainJournal: { low: 59_976_000, high: 59_994_000, source: 'book, p. 9' } },
});
const AT = '2026-02-03T04:05:06.000Z';
const MIDDLE = 59_985_000;

const FOUR: readonly Slot[] = ['front-0', 'front-90', 'rear-0', 'rear-90'];
const TWO: readonly Slot[] = ['front-0', 'front-90'];

/** A normal figure, by the method of Box and Muller. */
const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

interface Way {
  readonly unit: Unit;
  readonly slots: readonly Slot[];
}

/** Five journals, ground to a tolerance of 18 µm, out of shape by some 1.5 µm, read with a usual micrometer. */
function readings({ unit, slots }: Way, random: () => number): Reading[] {
  const instrument = jobIn(unit).instruments.micrometer;
  const own = Math.hypot(instrument.repeatability, instrument.operator);
  const step = unit === 'mm' ? 1_000 : 2_540;
  return [1, 2, 3, 4, 5].flatMap((station) => {
    const part = MIDDLE + 3_000 * normal(random);
    return slots.map((slot, at): Reading => {
      const nm = nanometres(Math.round((part + 1_500 * normal(random) + own * normal(random)) / step) * step);
      const id = `00000000-0000-4000-8000-${String(station * 100 + at).padStart(12, '0')}`;
      const text = formatLength(nm, unit, unit === 'mm' ? 3 : 4);
      return {
        id,
        feature: 'mainJournal',
        station,
        slot,
        text,
        unit,
        setting: null,
        replaces: null,
        by: 'Wren',
        at: AT,
        nm,
      };
    });
  });
}

/** The third journal's figures written down once more for the fourth. */
function withCopy(all: readonly Reading[]): Reading[] {
  const from = all.filter(({ station }) => station === 3);
  return all.map((reading) => {
    const source = from.find(({ slot }) => slot === reading.slot)!;
    return reading.station === 4 ? { ...reading, text: source.text, nm: source.nm } : reading;
  });
}

function rates(way: Way, engines: number): { found: number; falsely: number } {
  const random = seeded(20_261_130);
  const job = jobIn(way.unit) as unknown as Parameters<typeof readingDoubts>[0];
  const asked = (all: readonly Reading[]) => readingDoubts(job, all, 'mainJournal');
  const isAsked = (all: readonly Reading[], first: number | null) =>
    asked(all).some((one) => one.kind === 'copied' && (first === null || one.parts[0] === first));
  let [found, falsely] = [0, 0];
  for (let engine = 0; engine < engines; engine += 1) {
    const good = readings(way, random);
    if (isAsked(good, null)) falsely += 1;
    if (isAsked(withCopy(good), 3)) found += 1;
  }
  return { found: found / engines, falsely: falsely / engines };
}

/** The normal integral, by Abramowitz and Stegun 26.2.17; good to 1e-7. Shares nothing with the rule. */
function below(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const series = [0.31938153, -0.356563782, 1.781477937, -1.821255978, 1.330274429];
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * series.reduce((sum, a, at) => sum + a * t ** (at + 1), 0);
  return x > 0 ? 1 - tail : tail;
}

/** The chance that a journal reads as these figures, where it is known how journals and readings scatter, µm; by adding up over the journal. */
function chanceOf(figures: readonly number[], step: number, places: number): number {
  const SLICES = 80;
  let sum = 0;
  for (let at = 0; at < SLICES; at += 1) {
    const z = -5 + (10 * (at + 0.5)) / SLICES;
    const here = (figure: number) =>
      below((figure + step / 2 - 3 * z) / places) - below((figure - step / 2 - 3 * z) / places);
    sum += figures.reduce(
      (chance, figure) => chance * here(figure),
      (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * (10 / SLICES),
    );
  }
  return sum;
}

/**
 * The share of copied journals that no rule can exceed, at so many false questions. Two sets of figures that agree are a copy or chance: a copy
 * agrees always, chance as often as the figures come. By the lemma of Neyman and Pearson (1933) the best rule asks where they come least often,
 * until the false questions are used up. It is told here how journals and readings scatter; a rule at the bench has to guess it.
 *
 * @param falsely false questions for each pair of neighbours
 */
function mostThatCanBeFound({ unit, slots }: Way, falsely: number): number {
  const random = seeded(1_933);
  const { repeatability, operator } = jobIn(unit).instruments.micrometer;
  const places = Math.hypot(1_500, repeatability, operator) / 1_000;
  const step = unit === 'mm' ? 1 : 2.54;
  const JOURNALS = 5_000;
  const chances = Array.from({ length: JOURNALS }, () => {
    const part = 3 * normal(random);
    const figures = slots.map(() => Math.round((part + places * normal(random)) / step) * step);
    return chanceOf(figures, step, places);
  }).sort((one, other) => one - other);
  let used = 0;
  const first = chances.findIndex((chance) => {
    used += chance / JOURNALS;
    return used > falsely;
  });
  return first === -1 ? 1 : first / JOURNALS;
}

// Two false questions in 1,000 engines, over the 4 + 4 + 3 + 3 pairs of neighbours that a four-cylinder engine has.
const A_PAIR = 0.002 / 14;

describe('copied figures (found only with three different ones a part)', () => {
  it.each([
    ['four places in mm', { unit: 'mm', slots: FOUR }],
    ['four places in inches', { unit: 'in', slots: FOUR }],
    ['two places in mm', { unit: 'mm', slots: TWO }],
    ['two places in inches', { unit: 'in', slots: TWO }],
  ] as const)('%s: as many are found as any rule can find at 2 false questions in 1,000 good engines', (name, way) => {
    const { found, falsely } = rates(way, 1_000);
    // Four pairs of journals are looked at here: a rule that asks more often than its share is held to what could be found then.
    const most = mostThatCanBeFound(way, Math.max(A_PAIR, falsely / 4));
    console.log(
      `${name}: ${(100 * found).toFixed(1)} % of copied parts found (no rule that asks as seldom finds more than ${(100 * most).toFixed(1)} %), ${(1000 * falsely).toFixed(1)} false questions in 1,000 good engines`,
    );
    expect(found).toBeGreaterThanOrEqual(Math.min(0.9, most - 0.07));
    expect(falsely).toBeLessThanOrEqual(0.002);
  });
});

describe('the chi-square tail', () => {
  // Upper points of the distribution at 5 % and 1 %, as tables print them; from memory.
  it.each([
    [1, 3.841, 6.635],
    [2, 5.991, 9.21],
    [3, 7.815, 11.345],
    [4, 9.488, 13.277],
    [6, 12.592, 16.812],
    [9, 16.919, 21.666],
  ])('of %d degrees of freedom has the points that tables print', (freedom, five, one) => {
    expect(chiSquareTail(five, freedom)).toBeCloseTo(0.05, 4);
    expect(chiSquareTail(one, freedom)).toBeCloseTo(0.01, 4);
  });
});
