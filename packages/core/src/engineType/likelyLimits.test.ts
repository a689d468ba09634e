import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { likelyLimit, wallSpan } from './likelyLimits.js';
import { LIMIT_KEYS, typeLimitsSchema } from './limits.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

describe('a limit that cannot be right', () => {
  it('of 3 mm for an oil clearance, or 3 in for 0.003 in, is asked about with what it may have been', () => {
    expect(likelyLimit('mainClearance', um(3_000), 'mm')).toContainEqual({
      nm: um(30),
      question: 'Decimal point slipped?',
    });
    expect(likelyLimit('endPlay', nanometres(3 * 25_400_000), 'in')).toContainEqual({
      nm: nanometres(76_200),
      question: 'Decimal point slipped?',
    });
    expect(likelyLimit('mainBore', nanometres(2_450_000), 'mm')).not.toBeNull();
  });

  it('is none of what data sheets have', () => {
    const usual = { size: um(64_000), small: um(50) };
    for (const key of LIMIT_KEYS) {
      const isSize = ['mainBore', 'mainJournal', 'bigEnd', 'pin'].includes(key);
      expect(likelyLimit(key, isSize ? usual.size : usual.small, 'mm'), key).toBeNull();
    }
  });
});

describe('a wall', () => {
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 4' });

  it('can be what bore, journal and clearance leave, and more for an undersize', () => {
    const limits = typeLimitsSchema.parse({
      mainBore: limit(64_000, 64_018),
      mainJournal: limit(59_976, 59_994),
      mainClearance: limit(20, 50),
    });
    const span = wallSpan({ limits }, 'main')!;
    // By hand: (64.009 − 59.985 − 0.035) / 2 = 1.9945.
    for (const wall of [1_990, 2_120, 2_494]) expect(wall * 1000 > span.low && wall * 1000 < span.high).toBe(true);
    for (const wall of [199, 1_500, 19_940]) expect(wall * 1000 > span.low && wall * 1000 < span.high).toBe(false);
    expect(wallSpan({ limits }, 'rod')).toBeNull();
  });
});
