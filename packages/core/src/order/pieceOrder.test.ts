import { describe, expect, it } from 'vitest';
import { readShimRequest, type ShimRequest } from '../fit/format/shimRequest.js';
import { shims } from '../fit/shims.js';
import { randomShims } from '../fit/testing/randomShims.js';
import { seeded } from '../measure/seeded.js';
import { coveredReadings, type OneLengthRequest, pieceChance, pieceOrder } from './pieceOrder.js';

function read(input: object): OneLengthRequest {
  const result = readShimRequest(input);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.request as OneLengthRequest;
}

/** The request as if so much had been read, nm. */
function asRead(request: OneLengthRequest, nm: number): ShimRequest {
  const value = nm / (request.unit === 'mm' ? 1e6 : 25.4e6);
  if (request.kind === 'ring-shims') return { ...request, gap: value };
  return request.kind === 'saddle-shims' ? { ...request, clearance: value } : { ...request, reading: value };
}

const washers = (stock: number) =>
  read({
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'thrust-washers',
    low: 0.1,
    high: 0.2,
    aim: 0.15,
    reading: 0.1,
    fitted: { front: 2.36, rear: 2.36 },
    halves: ['upper'],
    pieces: [2.31, 2.36, 2.41].map((thickness) => ({ id: `${thickness}`, thickness, stock, half: 'either' })),
  });

describe('which washers and shims should be on the shelf', () => {
  it('covers exactly the readings for which there is a plan', () => {
    const random = seeded(99);
    let inside = 0;
    let outside = 0;
    for (let at = 0; at < 400; at += 1) {
      const input = randomShims(random, at);
      if (input.kind === 'split-line') continue;
      const request = read(input);
      const within = { low: 0, high: 5_000_000 };
      const covered = coveredReadings(request, within);
      for (let tried = 0; tried < 12; tried += 1) {
        const stretch = covered[Math.floor(random() * covered.length)];
        const [from, to] = stretch && random() < 0.5 ? [stretch.low, stretch.high] : [within.low, within.high];
        const nm = Math.ceil(from + random() * (Math.floor(to) - Math.ceil(from)));
        const isCovered = covered.some(({ low, high }) => low <= nm && nm <= high);
        const status = shims(asRead(request, nm)).status;
        expect(isCovered, `${at} ${nm} ${JSON.stringify(input)}`).toBe(status === 'optimal');
        if (isCovered) inside += 1;
        else outside += 1;
      }
      for (const [index, { low, high }] of covered.entries()) {
        for (const end of [low, high].map(Math.round)) {
          if (end < low || end > high) continue;
          expect(shims(asRead(request, end)).status, `${at} end ${end}`).toBe('optimal');
        }
        if (index > 0) expect(low).toBeGreaterThan(covered[index - 1]!.high);
      }
    }
    expect(Math.min(inside, outside)).toBeGreaterThan(300);
  });

  it('says the chance over a band, and about a reading that is uncertain', () => {
    // By hand: with what is fitted 0.1 to 0.2; each step of 0.05 on either face moves it by as much: 0.0 to 0.3 in all.
    const request = washers(2);
    expect(coveredReadings(request, { low: -1_000_000, high: 1_000_000 })).toEqual([{ low: 0, high: 300_000 }]);
    expect(pieceChance(request, { kind: 'band', low: 0, high: 600_000 })).toBeCloseTo(0.5, 6);
    expect(pieceChance(request, { kind: 'band', low: 150_000, high: 150_000 })).toBe(1);
    expect(pieceChance(request, { kind: 'normal', mean: 300_000, uncertainty: 10_000 })).toBeCloseTo(0.5, 3);
    expect(pieceChance(washers(0), { kind: 'band', low: 0, high: 600_000 })).toBe(0);
  });

  it('of rings is certain where their stacks reach over the whole band', () => {
    const rings = read({
      format: 'fettle.shim-request/1',
      unit: 'mm',
      kind: 'ring-shims',
      low: 0.07,
      high: 0.15,
      aim: 0.1,
      gap: 0.6,
      counts: [2],
      pieces: [{ id: 'a', thickness: 0.24, stock: 2 }],
    });
    // By hand: two of 0.240 leave 0.070 to 0.150 of gaps from 0.550 to 0.630.
    expect(pieceChance(rings, { kind: 'band', low: 560_000, high: 630_000 })).toBe(1);
    expect(pieceChance(rings, { kind: 'band', low: 550_000, high: 710_000 })).toBeCloseTo(0.5, 6);
  });

  it('leaves the dearest out first', () => {
    const rings = read({
      format: 'fettle.shim-request/1',
      unit: 'mm',
      kind: 'ring-shims',
      low: 0.07,
      high: 0.15,
      aim: 0.1,
      gap: 0.6,
      counts: [2],
      pieces: [
        { id: 'one', thickness: 0.24, stock: 0 },
        { id: 'other', thickness: 0.24, stock: 0 },
      ],
    });
    const expected = { kind: 'band', low: 560_000, high: 620_000 } as const;
    expect(pieceOrder(rings, expected, 0.9, { one: 3, other: 2 }).order).toEqual([{ id: 'other', count: 2 }]);
    expect(pieceOrder(rings, expected, 0.9, { one: 2, other: 3 }).order).toEqual([{ id: 'one', count: 2 }]);
  });

  it('leaves out whatever can be left out, and says where no shelf would do', () => {
    const expected = { kind: 'band', low: 50_000, high: 250_000 } as const;
    const order = pieceOrder(washers(0), expected, 1);
    expect(order).toMatchObject({ now: 0, ceiling: 1, chance: 1, isReached: true });
    // None of it can be left out alone.
    const kept = washers(0);
    for (const left of order.order) {
      const pieces = kept.pieces.map((piece) => {
        const count = order.order.find(({ id }) => id === piece.id)?.count ?? 0;
        return { ...piece, stock: piece.id === left.id ? count - 1 : count };
      });
      expect(pieceChance({ ...kept, pieces } as OneLengthRequest, expected)).toBeLessThan(1);
    }
    expect(pieceOrder(washers(2), expected, 0.9)).toMatchObject({ now: 1, chance: 1, order: [] });
    const wide = pieceOrder(washers(0), { kind: 'band', low: 0, high: 1_000_000 }, 0.9);
    expect(wide).toMatchObject({ isReached: false, ceiling: expect.closeTo(0.3, 6), chance: expect.closeTo(0.3, 6) });
  });
});
