import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import type { Turn } from './runoutSchema.js';
import { bentBy, turnRead } from './turn.js';

function turn(readings: readonly (readonly [angle: number, nm: number | null])[]): Turn {
  const stamp = { by: 'Wren', at: '2026-01-02T03:04:05.000Z' };
  return Object.fromEntries(
    readings.map(([angle, nm]) => [
      String(angle),
      { text: String(nm), unit: 'mm' as const, nm: nm === null ? null : nanometres(Math.round(nm)), ...stamp },
    ]),
  );
}
const round = (steps: number, of: (radians: number) => number) =>
  turn(Array.from({ length: steps }, (_, at) => [(at * 360) / steps, of((at * 2 * Math.PI) / steps)] as const));

describe('the runout of a shaft', () => {
  // Check values T11-04 and T11-05: half the total reading, shop practice.
  it('bends it by half of its total reading', () => {
    expect(bentBy(0.003 * 25.4e6) / 25.4e6).toBeCloseTo(0.0015, 9);
    expect(bentBy(0.0008 * 25.4e6) / 25.4e6).toBeCloseTo(0.0004, 9);
  });

  it('comes once a turn where the axis is off; what comes more often is the part, out of round', () => {
    const bent = turnRead(round(8, (angle) => 20_000 + 15_000 * Math.cos(angle - Math.PI / 2)))!;
    expect(bent.tir).toBe(30_000);
    expect(bent.once!.swing).toBeCloseTo(15_000, 0);
    expect(bent.once!.at).toBeCloseTo(90, 3);
    expect(bent.rest).toBeLessThan(3);
    const oval = turnRead(round(8, (angle) => 5_000 * Math.cos(2 * angle)))!;
    expect(oval.once!.swing).toBeCloseTo(0, 3);
    expect([oval.tir, oval.rest]).toEqual([10_000, 10_000]);
  });

  it('is found again from whatever amplitude and angle, whole and with a reading missing', () => {
    const cases = fc.record({
      steps: fc.constantFrom(6, 8, 12),
      swing: fc.integer({ min: 2_000, max: 90_000 }),
      at: fc.integer({ min: 0, max: 359 }),
      missing: fc.integer({ min: 0, max: 11 }),
    });
    fc.assert(
      fc.property(cases, ({ steps, swing, at, missing }) => {
        const whole = round(steps, (angle) => swing * Math.cos(angle - (at * Math.PI) / 180));
        const { [String(((missing % steps) * 360) / steps)]: _, ...fewer } = whole;
        for (const one of [whole, fewer]) {
          const { once } = turnRead(one)!;
          expect(Math.abs(once!.swing - swing)).toBeLessThan(3);
          const off = Math.abs(once!.at - at) % 360;
          expect(Math.min(off, 360 - off)).toBeLessThan(0.1);
        }
      }),
      { numRuns: 200, seed: 3 },
    );
  });

  it('tells no more than its total reading from too few readings, or from half a turn', () => {
    expect(turnRead(turn([[0, 10]]))).toBeNull();
    expect(
      turnRead(
        turn([
          [0, 10_000],
          [180, 2_000],
          [90, null],
        ]),
      ),
    ).toMatchObject({ count: 2, tir: 8_000, once: null, rest: null });
    expect(
      turnRead(
        turn([
          [0, 1],
          [45, 2],
          [90, 3],
          [135, 4],
          [170, 5],
        ]),
      )!.once,
    ).toBeNull();
  });

  it('gives the condition of its angles, and makes no swing out of angles in clusters (22 µm out of 10)', () => {
    expect(turnRead(round(8, Math.cos))!.condition).toBeCloseTo(1, 6);
    const clustered = turnRead(
      turn([
        [0, 0],
        [10, 10_000],
        [20, 0],
        [190, 5_000],
      ]),
    )!;
    expect(clustered.condition).toBeGreaterThan(1.5);
    expect([clustered.tir, clustered.once, clustered.rest]).toEqual([10_000, null, null]);
    const angles = fc.uniqueArray(fc.integer({ min: 0, max: 359 }), { minLength: 4, maxLength: 12 });
    fc.assert(
      fc.property(
        angles,
        fc.array(fc.integer({ min: 0, max: 10_000 }), { minLength: 12, maxLength: 12 }),
        (at, read) => {
          const { once, tir } = turnRead(turn(at.map((angle, index) => [angle, read[index]!] as const)))!;
          return once === null || 2 * once.swing <= 2 * tir + 1;
        },
      ),
      { numRuns: 2_000 },
    );
  });
});
