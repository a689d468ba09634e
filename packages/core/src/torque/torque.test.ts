import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { boltName, boltOfName, boltsOf } from './bolt.js';
import { boltOrder, capsFromMiddle } from './boltOrder.js';
import { stretchFindings } from './boltStretch.js';
import { type Torque, torqueSchema } from './fastener.js';
import { passTargets, passText, type Tightening, tighteningSchema, tighteningText } from './tightening.js';
import { passStates, tightenPasses } from './tightenPasses.js';
import { torqueStages } from './torqueStages.js';
import { TORQUE_UNITS, torqueEcho, torqueIn } from './torqueUnit.js';

const um = (value: number) => nanometres(value * 1000);

describe('torque in another unit', () => {
  it('is that of the definitions', () => {
    // 0.3048 m × 0.45359237 kg × 9.80665 m/s²; GNU units 2.22 (T01-08 of the check values).
    expect(torqueIn(1, 'ft-lb', 'Nm')).toBeCloseTo(1.3558179483314003, 12);
    // T = K d F with K 0.2, d 7/16 in, F 10,000 lbf (short torque formula, from memory, verified by computation; T07-14).
    const inches = 0.2 * 0.4375 * 10_000;
    expect(inches).toBeCloseTo(875, 9);
    expect(torqueIn(inches, 'in-lb', 'ft-lb')).toBeCloseTo(72.9167, 4);
    expect(torqueIn(inches, 'in-lb', 'Nm')).toBeCloseTo(98.8617, 3);
    expect(torqueEcho(70, 'ft-lb')).toBe('94.9 N·m');
  });

  it('comes back as it was typed', () => {
    const unit = fc.constantFrom(...TORQUE_UNITS);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), unit, unit, (tenths, from, to) => {
        const value = tenths / 10;
        expect(torqueIn(torqueIn(value, from, to), to, from)).toBeCloseTo(value, 9);
      }),
    );
    expect(torqueIn(torqueIn(7.3, 'ft-lb', 'in-lb'), 'in-lb', 'ft-lb')).toBe(7.3);
  });
});

describe('stages of a torque', () => {
  it.each([
    // Common practice, as the work is described: equal stages, each rounded up to a sensible figure.
    [100, 3, [35, 70, 100]],
    [70, 3, [25, 50, 70]],
    [60, 3, [20, 40, 60]],
    [18, 3, [6, 12, 18]],
    [16.5, 2, [9, 16.5]],
    [20, 2, [10, 20]],
    [55, 1, [55]],
    [22, 4, [10, 15, 20, 22]],
  ])('%d in %d', (final, stages, steps) => {
    expect(torqueStages(final, stages)).toEqual(steps);
  });

  it('rise to the final figure, never over it, and lie less than a step above equal ones', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000 }), fc.integer({ min: 1, max: 20 }), (tenths, count) => {
        const final = tenths / 10;
        const steps = torqueStages(final, count);
        expect(steps).toHaveLength(count);
        expect(steps.at(-1)).toBe(final);
        steps.forEach((value, at) => {
          const equal = (final * (at + 1)) / count;
          expect(value).toBeLessThanOrEqual(final);
          expect(value).toBeGreaterThanOrEqual(Math.min(final, equal) - 1e-6);
          expect(value - equal).toBeLessThan(final < 20 ? 1 : 5);
          if (at > 0) expect(value).toBeGreaterThanOrEqual(steps[at - 1]!);
        });
      }),
    );
  });

  it('are refused where there is nothing to divide', () => {
    for (const [final, stages] of [
      [0, 3],
      [-5, 3],
      [Number.NaN, 3],
      [50, 0],
      [50, 2.5],
      [50, 21],
    ] as const)
      expect(() => torqueStages(final, stages)).toThrow(RangeError);
  });
});

describe('the order of bolts', () => {
  it('goes from the middle out', () => {
    expect(capsFromMiddle(1)).toEqual([1]);
    expect(capsFromMiddle(4)).toEqual([2, 3, 1, 4]);
    expect(capsFromMiddle(7)).toEqual([4, 3, 5, 2, 6, 1, 7]);
  });

  it('takes every bolt once, no cap before one that is nearer to the middle, from side to side', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 4 }), (mains, perCap) => {
        const bolts = boltOrder(mains, perCap);
        expect(new Set(bolts.map(({ main, side, row }) => `${main} ${side} ${row}`)).size).toBe(mains * perCap);
        expect(bolts.map(({ sequence }) => sequence)).toEqual(bolts.map((_, at) => at + 1));
        const away = bolts.map(({ main }) => Math.abs(main - (mains + 1) / 2));
        expect(away).toEqual([...away].sort((one, other) => one - other));
        if (perCap % 2 === 0) {
          for (let at = 0; at < bolts.length; at += 2) expect(bolts[at]!.side).not.toBe(bolts[at + 1]!.side);
        }
      }),
    );
  });
});

const fastener = (place: Torque['place'], tightening: Tightening): Torque =>
  torqueSchema.parse({
    fastener: place,
    steps: tighteningText(tightening, 'mm'),
    place,
    tightening,
    source: 'book, p. 1',
  });
const stages = (final: number, count: number): Tightening => ({ school: 'stages', unit: 'Nm', final, stages: count });

describe('passes', () => {
  it('are those of each school', () => {
    const texts = (one: Tightening) => passTargets(one).map((target) => passText(target, 'mm'));
    expect(texts(stages(110, 3))).toEqual(['40 N·m', '75 N·m', '110 N·m']);
    expect(texts({ school: 'angle', unit: 'Nm', final: 50, stages: 2, angles: [60, 60] })).toEqual([
      '25 N·m',
      '50 N·m',
      '60° on',
      '60° on',
    ]);
    expect(texts({ school: 'snug', unit: 'ft-lb', snug: 25, final: 70, stages: 3 })).toEqual([
      'snug, 25 ft·lb',
      '50 ft·lb',
      '70 ft·lb',
    ]);
    expect(texts({ school: 'stretch', unit: 'in-lb', snug: null, low: um(140), high: um(160) })).toEqual([
      'stretch 0.140 mm to 0.160 mm',
    ]);
    expect(tighteningText({ school: 'snug', unit: 'Nm', snug: 10, final: 60, stages: 2 }, 'mm')).toBe(
      'snug, 10 N·m, then 30 · 60 N·m',
    );
  });

  it('go stage by stage, inner before outer, side bolts last, then rod by rod', () => {
    const passes = tightenPasses(
      [
        fastener('main-side', stages(30, 1)),
        fastener('rod', stages(40, 2)),
        fastener('main-outer', stages(60, 2)),
        fastener('main-inner', stages(90, 2)),
      ],
      [1, 2],
    );
    expect(passes.map(({ key }) => key)).toEqual([
      'main-inner/1',
      'main-outer/1',
      'main-inner/2',
      'main-outer/2',
      'main-side/1',
      'rod 1/1',
      'rod 1/2',
      'rod 2/1',
      'rod 2/2',
    ]);
  });

  it('that are passed over, out of order or to another figure are said', () => {
    const passes = tightenPasses([fastener('main-inner', stages(90, 3))], []);
    const done = (target: string, minute: number) => ({
      target,
      by: 'Wren',
      at: `2026-01-01T10:${String(minute).padStart(2, '0')}:00.000Z`,
    });
    const doubts = (all: Parameters<typeof passStates>[1]) => passStates(passes, all, 'mm').map(({ doubt }) => doubt);
    expect(doubts({})).toEqual([null, null, null]);
    expect(doubts({ 'main-inner/2': done('60 N·m', 1) })).toEqual(['skipped', null, null]);
    expect(doubts({ 'main-inner/1': done('30 N·m', 5), 'main-inner/2': done('60 N·m', 1) })).toEqual([
      null,
      'out-of-order',
      null,
    ]);
    expect(doubts({ 'main-inner/1': done('35 N·m', 0) })).toEqual(['other-figure', null, null]);
  });
});

describe('bolts', () => {
  it('are known by their ids, by whatever name they were kept', () => {
    const mains = boltsOf('main-outer', { mains: 2, rod: null, perCap: 3 });
    expect(mains).toEqual([
      { id: 'main-outer/1/left/1', name: 'M1 outer left' },
      { id: 'main-outer/1/right/1', name: 'M1 outer right' },
      { id: 'main-outer/1/left/2', name: 'M1 outer left 2' },
      { id: 'main-outer/2/right/1', name: 'M2 outer right' },
      { id: 'main-outer/2/left/1', name: 'M2 outer left' },
      { id: 'main-outer/2/left/2', name: 'M2 outer left 2' },
    ]);
    for (const place of ['main-inner', 'main-outer', 'main-side', 'rod'] as const) {
      const bolts = boltsOf(place, { mains: 5, rod: place === 'rod' ? 3 : null, perCap: 4 });
      for (const { id, name } of bolts) expect([boltOfName(name), boltName(id)]).toEqual([id, name]);
      expect(new Set(bolts.map(({ id }) => id)).size).toBe(bolts.length);
    }
    expect([boltOfName('a stud'), boltName('a stud')]).toEqual(['a stud', 'a stud']);
  });
});

describe('stretch', () => {
  const limits = { low: um(140), high: um(160) };
  const bolt = (name: string, stretch: number) => ({ id: name, name: `bolt ${name}`, stretch: um(stretch) });

  it('names bolts outside their limits, and one that stretched more than its neighbours', () => {
    const found = stretchFindings(
      [bolt('a', 143), bolt('b', 144), bolt('c', 158), bolt('d', 138), bolt('e', 163)],
      limits,
    );
    expect(found).toEqual([
      { ...bolt('c', 158), kind: 'more-than-neighbours', by: um(14.5) },
      { ...bolt('d', 138), kind: 'under', by: um(2) },
      { ...bolt('e', 163), kind: 'over', by: um(3) },
    ]);
    expect(stretchFindings([bolt('a', 143), bolt('b', 158)], limits)).toEqual([]);
    expect(stretchFindings([bolt('a', 150), bolt('b', 152), bolt('c', 151)], limits)).toEqual([]);
  });
});

it('unequal stages are passes as the book gives them', () => {
  const tightening = { school: 'angle', unit: 'Nm', final: 55, stages: 2, unequal: [30, 55], angles: [60] } as const;
  const passes = passTargets(tighteningSchema.parse(tightening));
  expect(passes.map((one) => passText(one, 'mm'))).toEqual(['30 N·m', '55 N·m', '60° on']);
  for (const unequal of [
    [55, 30],
    [30, 50],
    [20, 30, 55],
  ]) {
    expect(tighteningSchema.safeParse({ ...tightening, unequal }).success).toBe(false);
  }
});
