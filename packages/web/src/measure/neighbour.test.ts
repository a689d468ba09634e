import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { neighbour } from './neighbour.js';
import type { Place } from './useSaveReading.js';

const slots = ['front-0', 'front-90', 'rear-0', 'rear-90'] as const;
const place = (slot: (typeof slots)[number], station: number): Place => ({ feature: 'mainJournal', slot, station });

describe('going from box to box', () => {
  it.each([
    ['along', 'front-0', 1, 'front-0', 2],
    ['along', 'front-0', 3, 'front-90', 1],
    ['down', 'front-0', 1, 'front-90', 1],
    ['down', 'rear-90', 1, 'front-0', 2],
  ] as const)('goes %s the shaft from %s at %i to %s at %i', (order, slot, station, nextSlot, next) => {
    expect(neighbour(place(slot, station), 'next', slots, 3, order)).toEqual(place(nextSlot, next));
    expect(neighbour(place(nextSlot, next), 'previous', slots, 3, order)).toEqual(place(slot, station));
  });

  it('ends at the edges', () => {
    expect(neighbour(place('rear-90', 3), 'next', slots, 3, 'along')).toBeNull();
    expect(neighbour(place('front-0', 1), 'previous', slots, 3, 'down')).toBeNull();
    expect(neighbour(place('front-0', 1), 'up', slots, 3, 'along')).toBeNull();
    expect(neighbour(place('rear-90', 3), 'right', slots, 3, 'along')).toBeNull();
  });

  it('goes through every box once, whatever the order, and back the same way', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('along' as const, 'down' as const),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 4 }),
        (order, count, rows) => {
          const own = slots.slice(0, rows);
          const seen: Place[] = [];
          for (let at: Place | null = place(own[0]!, 1); at; at = neighbour(at, 'next', own, count, order)) {
            seen.push(at);
            if (seen.length > rows * count) break;
          }
          expect(new Set(seen.map(({ slot, station }) => `${slot} ${station}`)).size).toBe(rows * count);
          const back = neighbour(seen.at(-1)!, 'previous', own, count, order);
          expect(back).toEqual(seen.at(-2) ?? null);
        },
      ),
      { seed: 8 },
    );
  });
});
