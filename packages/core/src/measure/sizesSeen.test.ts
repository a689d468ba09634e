import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nanometres } from './nanometres.js';
import { SizesSeen } from './sizesSeen.js';

const few = fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 8 });

describe('sizes seen', () => {
  it('say of all others what going through them says', () => {
    fc.assert(
      fc.property(few, fc.nat(7), fc.nat(9), fc.nat(4), (sizes, at, low, width) => {
        const seen = new SizesSeen(sizes.map(nanometres));
        const place = at < sizes.length ? at : null;
        const others = sizes.filter((_, index) => index !== place);
        const without = place === null ? null : nanometres(sizes[place]!);
        const extent = others.length === 0 ? null : { low: Math.min(...others), high: Math.max(...others) };
        expect(seen.extent(without)).toEqual(extent);
        expect(seen.hasWithin(low, low + width, without)).toBe(
          others.some((size) => size >= low && size <= low + width),
        );
      }),
      { numRuns: 2000, seed: 3 },
    );
  });
});
