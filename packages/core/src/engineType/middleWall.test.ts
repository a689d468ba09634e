import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { middleWall, wallSpan } from './likelyLimits.js';
import { typeLimitsSchema } from './limits.js';

const um = (value: number) => nanometres(value * 1000);
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 7' });

describe('the wall that a sheet calls for', () => {
  const limits = {
    ...typeLimitsSchema.parse({}),
    mainBore: limit(64_000, 64_020),
    mainJournal: limit(59_980, 60_000),
    mainClearance: limit(20, 60),
  };

  it('is half of what bore, journal and clearance leave in the middle of their limits', () => {
    // By hand: (64.010 − 59.990 − 0.040) / 2 = 1.990.
    expect(middleWall({ limits }, 'main')).toBe(1_990_000);
    expect(middleWall({ limits: { ...limits, mainClearance: null } }, 'main')).toBe(2_010_000);
    const span = wallSpan({ limits }, 'main')!;
    expect(span.low).toBeLessThan(1_990_000);
    expect(span.high).toBeGreaterThan(1_990_000);
  });

  it('is not known without bore and journal, or where they leave nothing', () => {
    expect(middleWall({ limits }, 'rod')).toBeNull();
    expect(middleWall({ limits: { ...limits, mainJournal: limit(64_000, 64_010) } }, 'main')).toBeNull();
    expect(wallSpan({ limits }, 'rod')).toBeNull();
  });
});
