import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { needAhead } from './needAhead.js';
import { reorderLevel, type Use } from './reorderLevel.js';

const use: Use = {
  engines: 40,
  months: 30,
  taken: [
    { pieces: 2, engines: 18 },
    { pieces: 4, engines: 7 },
  ],
};

describe('what will be needed', () => {
  it('with nothing on the benches is what the reorder level says, worked out in another way', () => {
    for (const months of [0.5, 1, 3]) {
      for (const service of [0.5, 0.9, 0.99]) {
        const level = reorderLevel(use, months, service);
        const ahead = needAhead(use, { months, onBench: 0, free: level.level, service });
        expect(ahead.wanted).toBe(level.level);
        expect(ahead.lasts).toBeCloseTo(level.service, 8);
        expect(ahead.expected).toBeCloseTo(level.expected, 6);
      }
    }
  });

  it('of engines on the benches alone is what those take, worked out by hand', () => {
    // Two engines in no time at all: 15 of 40 take none, 18 two, 7 four. Both none: (15/40)². At most two: that, and 2 × 15/40 × 18/40.
    const soon = { months: 1e-9, onBench: 2, service: 0.95 };
    expect(needAhead(use, { ...soon, free: 0 }).lasts).toBeCloseTo((15 / 40) ** 2, 6);
    expect(needAhead(use, { ...soon, free: 2 }).lasts).toBeCloseTo((15 / 40) ** 2 + 2 * (15 / 40) * (18 / 40), 6);
    expect(needAhead(use, { ...soon, free: 8 }).lasts).toBeCloseTo(1, 6);
    expect(needAhead(use, { ...soon, free: 0 }).expected).toBeCloseTo(2 * ((2 * 18 + 4 * 7) / 40), 6);
  });

  it('comes about as often as it says, in a simulated workshop', () => {
    const random = seeded(7);
    const ahead = { months: 1, onBench: 3, free: 6, service: 0.9 };
    const told = needAhead(use, ahead);
    // The rate of engines as the records leave it: gamma of shape 40.5 over 30 months, a sum of 81 halves of squared normals.
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let all = 0;
    let lasted = 0;
    let enough = 0;
    while (all < 8000) {
      let rate = 0;
      for (let at = 0; at < 81; at += 1) rate += normal() ** 2 / 2;
      rate /= 30;
      let count = 0;
      const wait = () => -Math.log(1 - random()) / rate;
      for (let time = wait(); time < 1; time += wait()) count += 1;
      if (count < 3) continue;
      let pieces = 0;
      for (let at = 0; at < count; at += 1) {
        const draw = random() * 40;
        pieces += draw < 18 ? 2 : draw < 25 ? 4 : 0;
      }
      all += 1;
      if (pieces <= 6) lasted += 1;
      if (pieces <= told.wanted) enough += 1;
    }
    expect(Math.abs(lasted / all - told.lasts)).toBeLessThan(0.02);
    expect(enough / all).toBeGreaterThan(0.89);
  });

  it('is bounded, for a workshop with thousands of engines too', () => {
    const many = {
      engines: 4000,
      months: 36,
      taken: [
        { pieces: 2, engines: 3000 },
        { pieces: 4, engines: 900 },
      ],
    };
    const ahead = needAhead(many, { months: 1, onBench: 40, free: 300, service: 0.95 });
    expect(ahead.expected).toBeGreaterThan(250);
    expect(ahead.wanted).toBeGreaterThan(ahead.expected);
    expect(needAhead(many, { months: 1, onBench: 40, free: 9999, service: 0.95 }).lasts).toBeCloseTo(1, 6);
    expect(
      needAhead({ engines: 0, months: 1, taken: [] }, { months: 1, onBench: 9, free: 0, service: 0.9 }),
    ).toMatchObject({
      expected: 0,
      lasts: 1,
      wanted: 0,
    });
  });
});
