import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Angle,
  DIRECTION_COUNTS,
  type DirectionCount,
  JOURNAL_SLOTS,
  placeOfSlot,
  schemeSlots,
  slotAt,
  slotName,
} from '../part/slot.js';
import { ovalOf, partShape } from './partShape.js';

/** A diameter as a gauge with two points sees it: the radii of both sides, of a part with lobes of given numbers, nm. */
function diameter(degrees: number, lobes: Readonly<Record<number, readonly [cosine: number, sine: number]>>): number {
  const radius = (angle: number) =>
    Object.entries(lobes).reduce(
      (sum, [n, [cosine, sine]]) => sum + cosine * Math.cos(Number(n) * angle) + sine * Math.sin(Number(n) * angle),
      30_000_000,
    );
  const angle = (degrees * Math.PI) / 180;
  return radius(angle) + radius(angle + Math.PI);
}

const read = (count: DirectionCount, lobes: Parameters<typeof diameter>[1]) =>
  new Map(
    schemeSlots('journal', 1, count).map((slot) => {
      const { angle } = placeOfSlot(slot);
      return [angle, diameter(angle, lobes)] as const;
    }),
  );

describe('an oval part', () => {
  it('is found from three directions on, with where it is largest, whatever lobes of odd number it has', () => {
    const cases = fc.record({
      count: fc.constantFrom(3 as const, 4 as const, 6 as const),
      swing: fc.integer({ min: 1_000, max: 40_000 }),
      at: fc.integer({ min: 0, max: 179 }),
      third: fc.integer({ min: -20_000, max: 20_000 }),
      fifth: fc.integer({ min: -20_000, max: 20_000 }),
    });
    fc.assert(
      fc.property(cases, ({ count, swing, at, third, fifth }) => {
        // A diameter has twice the lobe of the radius; largest less smallest is twice that again.
        const turn = (at * Math.PI) / 90;
        const second = [(swing / 4) * Math.cos(turn), (swing / 4) * Math.sin(turn)] as const;
        const oval = ovalOf(read(count, { 2: second, 3: [third, 0], 5: [0, fifth] }))!;
        expect(Math.abs(oval.swing - swing)).toBeLessThan(2);
        const off = Math.abs(oval.at - at) % 180;
        expect(Math.min(off, 180 - off)).toBeLessThan(0.5);
        expect(oval.rest).toBeLessThan(3);
      }),
      { numRuns: 200, seed: 7 },
    );
  });

  it('with three lobes looks round to a gauge with two points: it is not seen', () => {
    const trilobed = ovalOf(read(6, { 3: [10_000, 0] }))!;
    expect([trilobed.swing, trilobed.rest]).toEqual([0, 0]);
    expect(
      partShape(
        schemeSlots('journal', 1, 6).map((slot) => ({
          slot,
          size: diameter(placeOfSlot(slot).angle, { 3: [10_000, 0] }),
        })),
      ).outOfRound,
    ).toBe(0);
  });

  it('is not told by two directions, or by some that do not lie evenly', () => {
    expect(ovalOf(read(2, { 2: [5_000, 0] }))).toBeNull();
    const gappy = new Map([...read(4, { 2: [5_000, 0] })].slice(0, 3)) as Map<Angle, number>;
    expect(ovalOf(gappy)).toBeNull();
  });
});

describe('the shape of a part', () => {
  const sizes = (...list: readonly (readonly [Parameters<typeof placeOfSlot>[0], number])[]) =>
    partShape(list.map(([slot, size]) => ({ slot, size })));

  it('has out-of-round in a plane, taper from end to end, and a barrel or an hourglass in the middle', () => {
    const barrel = sizes(['front-0', 100], ['front-90', 103], ['middle-0', 110], ['rear-0', 104], ['rear-90', 101]);
    expect(barrel).toMatchObject({ outOfRound: 3, taper: 4, barrel: 8, oval: null });
    expect(sizes(['front', 100], ['middle', 90], ['rear', 100]).barrel).toBe(-10);
    expect(sizes(['front-0', 100])).toEqual({ outOfRound: null, taper: null, barrel: null, oval: null });
  });
});

describe('the schemes of reading', () => {
  it('name each place once, and a bore in the direction of its bolts by its plane', () => {
    for (const role of ['housing', 'journal'] as const) {
      for (const planes of [1, 2, 3] as const) {
        for (const directions of DIRECTION_COUNTS) {
          const slots = schemeSlots(role, planes, directions);
          expect(new Set(slots).size).toBe(planes * directions);
        }
      }
    }
    expect(schemeSlots('journal', 3, 6)).toHaveLength(18);
    expect([slotAt('housing', 'middle', 0), slotAt('journal', 'middle', 0)]).toEqual(['middle', 'middle-0']);
    expect(new Set(JOURNAL_SLOTS.map(slotName)).size).toBe(JOURNAL_SLOTS.length);
    expect(slotName('middle')).toBe('Middle plane');
  });
});
