import { describe, expect, it } from 'vitest';
import { usualInstruments } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { startedWith, trustRatio } from './trustRatio.js';

describe('how far off trials came', () => {
  it('has the interval of a standard deviation, by engines', () => {
    // Chi-square of 20 degrees of freedom: 9.591 at 2.5 %, 34.170 at 97.5 % (NIST/SEMATECH handbook, 1.3.6.7.4).
    const found = trustRatio({ ratio: 1.4, engines: 20 })!;
    expect(found.low).toBeCloseTo(1.4 * Math.sqrt(20 / 34.17), 3);
    expect(found.high).toBeCloseTo(1.4 * Math.sqrt(20 / 9.591), 3);
  });

  it('proposes wider as found, narrower only as far as is sure, and nothing where it fits or little is known', () => {
    expect(trustRatio({ ratio: 1.62, engines: 40 })!.factor).toBe(1.65);
    expect(trustRatio({ ratio: 1.1, engines: 40 })!.factor).toBe(1);
    const narrow = trustRatio({ ratio: 0.5, engines: 40 })!;
    expect(narrow.factor).toBeGreaterThanOrEqual(narrow.high);
    expect(narrow.factor).toBeLessThan(narrow.high + 0.05);
    expect(trustRatio({ ratio: 9, engines: 40 })!.factor).toBe(3);
    expect(trustRatio({ ratio: 2, engines: 7 })).toBeNull();
    expect(trustRatio({ ratio: null, engines: 40 })).toBeNull();
  });

  it('leaves honest figures alone in all but a few of 4,000 simulated workshops', () => {
    const random = seeded(11);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let moved = 0;
    for (let times = 0; times < 4000; times += 1) {
      const squares = Array.from({ length: 25 }, () => normal() ** 2).reduce((sum, one) => sum + one, 0);
      if (trustRatio({ ratio: Math.sqrt(squares / 25), engines: 25 })!.factor !== 1) moved += 1;
    }
    // One in twenty at most, and 3 standard deviations of the count; a factor just below 1 is told as 1.
    expect(moved / 4000).toBeLessThan(0.06);
    expect(moved / 4000).toBeGreaterThan(0.02);
  });
});

describe('what an engine starts with', () => {
  it('moves only what is as it started, and not the resolution; and not twice', () => {
    const usual = usualInstruments('mm');
    const own = { ...usual, micrometer: { ...usual.micrometer, operator: nanometres(700) } };
    const next = startedWith(own, 'mm', 1.5)!;
    expect(next.boreGauge.operator).toBe(usual.boreGauge.operator * 1.5);
    expect(next.boreGauge.resolution).toBe(usual.boreGauge.resolution);
    expect(next.micrometer).toEqual(own.micrometer);
    expect(startedWith(next, 'mm', 1.5)).toBeNull();
  });
});
