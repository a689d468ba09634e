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

describe('copied figures (found only with three different ones a part)', () => {
  it.each([
    ['four places in mm', { unit: 'mm', slots: FOUR }, 0.9],
    ['four places in inches', { unit: 'in', slots: FOUR }, 0.3],
    ['two places in mm', { unit: 'mm', slots: TWO }, 0.05],
    ['two places in inches', { unit: 'in', slots: TWO }, 0],
  ] as const)('%s: as many are found as can be at 2 false questions in 1,000 good engines', (name, way, least) => {
    const { found, falsely } = rates(way, 1_000);
    console.log(
      `${name}: ${(100 * found).toFixed(1)} % of copied parts found, ${(1000 * falsely).toFixed(1)} false questions in 1,000 good engines`,
    );
    expect(found).toBeGreaterThanOrEqual(least);
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
