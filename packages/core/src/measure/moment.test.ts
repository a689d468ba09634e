import { describe, expect, it } from 'vitest';
import { daySchema, momentSchema } from './moment.js';

describe('a date', () => {
  it('lies in years that a clock may say', () => {
    for (const day of ['1900-01-01', '2026-11-30', '2999-12-31']) expect(daySchema.safeParse(day).success).toBe(true);
    for (const day of ['0000-01-01', '1899-12-31', '3000-01-01', '-000001-01-01', '2026-02-30']) {
      expect([day, daySchema.safeParse(day).success]).toEqual([day, false]);
    }
    expect(momentSchema.safeParse('2026-11-30T10:00:00.000Z').success).toBe(true);
    for (const moment of ['0000-01-01T00:00:00Z', '9999-12-31T23:59:59.999Z', '+275760-09-13T00:00:00.000Z']) {
      expect([moment, momentSchema.safeParse(moment).success]).toEqual([moment, false]);
    }
  });
});
