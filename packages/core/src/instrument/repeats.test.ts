import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { repeatsOf } from './repeats.js';

describe('readings that were taken again', () => {
  it('tell how one of them repeats, and leave out slips', () => {
    // By hand: differences of 2 and −2 are those of a standard deviation of √2.
    expect(repeatsOf([2, -2], 1)).toMatchObject({ pairs: 2, slips: 0, sd: expect.closeTo(Math.SQRT2, 9) });
    expect(repeatsOf([2, -2, 500], 1)).toMatchObject({ pairs: 2, slips: 1 });
    expect(repeatsOf([], 1)).toBeNull();
    expect(repeatsOf([500], 1)).toBeNull();
  });

  it('hold the true one in their interval as often as they say', () => {
    const random = seeded(3);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let inside = 0;
    const rounds = 4000;
    for (let at = 0; at < rounds; at += 1) {
      const { low, high } = repeatsOf(
        Array.from({ length: 8 }, () => normal() - normal()),
        1,
      )!;
      if (low <= 1 && 1 <= high) inside += 1;
    }
    // 95 %; a standard deviation is 0.34 %.
    expect(Math.abs(inside / rounds - 0.95)).toBeLessThan(0.015);
  });
});
