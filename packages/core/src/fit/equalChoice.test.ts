import { describe, expect, it } from 'vitest';
import { dealOut } from '../shell/dealOut.js';
import { type FitRequestInput, fitRequestSchema } from './format/fitRequest.js';
import { readShimRequest } from './format/shimRequest.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';
import { shims } from './shims.js';
import { randomRequest } from './testing/randomRequest.js';

const answer = (input: FitRequestInput) => {
  const request = fitRequestSchema.parse(input);
  const plan = planRequest(request);
  expect(recheckPlan(request, plan)).toEqual([]);
  return plan;
};

/** Mains that all want walls of 3.99 mm in all. */
function mains(count: number, shells: FitRequestInput['shells'], rules: FitRequestInput['rules'] = {}) {
  const names = Array.from({ length: count }, (_, at) => `M${at + 1}`);
  return {
    format: 'fettle.fit-request/1' as const,
    unit: 'mm' as const,
    stations: names.map((id) => ({ id, family: 'main' as const, journal: 60, aim: 0.04, low: 0.02, high: 0.06 })),
    housings: names.map((id) => ({ id: `B ${id}`, family: 'main' as const, bore: 64.03, station: id })),
    shells,
    rules,
  };
}

function half(id: string, side: 'upper' | 'lower' | 'either', wall: number, stock: number | null, series = 'A') {
  return { id, family: 'main' as const, series, half: side, wall, stock };
}

// Common practice: what costs the same is settled by fewer part numbers, and by using up what is opened.
describe('of choices that cost the same', () => {
  it('the one of fewer part numbers is taken, across mixed pairs either way round', () => {
    // 1.992 over 1.998 and 1.998 over 1.992 are worth the same: one way round for all three mains takes two part numbers.
    const plan = answer(
      mains(3, [
        half('u thin', 'upper', 1.992, 9),
        half('u thick', 'upper', 1.998, 9),
        half('l thin', 'lower', 1.992, 9),
        half('l thick', 'lower', 1.998, 9),
      ]),
    );
    expect(plan.shellsUsed).toHaveLength(2);
    expect(plan.shellsUsed.every(({ count }) => count === 3)).toBe(true);
  });

  it('halves of two series of one wall come from one of them where it has enough', () => {
    const plan = answer(
      mains(3, [
        half('A', 'either', 1.995, 2, 'A'),
        half('B', 'either', 1.995, 9, 'B'),
        half('C', 'either', 1.995, 4, 'C'),
      ]),
    );
    expect(plan.shellsUsed).toEqual([{ id: 'B', count: 6 }]);
  });

  it('alike halves are dealt on hand before to order, the smallest stock that does first', () => {
    const used = (stocks: (number | null)[]) =>
      answer(
        mains(
          2,
          stocks.map((stock, at) => half(`s${at}`, 'either', 1.995, stock)),
        ),
      ).shellsUsed.map(({ id, count }) => `${id}×${count}`);
    expect(used([1, 9, 4])).toEqual(['s2×4']);
    expect(used([null, 9])).toEqual(['s1×4']);
    expect(used([1, 3, null])).toEqual(['s0×1', 's1×3']);
    expect(used([2, null, 1])).toEqual(['s0×2', 's1×1', 's2×1']);
  });

  it('costs no more and breaks no rule', () => {
    for (let seed = 1; seed <= 150; seed += 1) {
      const request = fitRequestSchema.parse(randomRequest(seed));
      const plan = planRequest(request);
      if (plan.status === 'optimal') expect(recheckPlan(request, plan)).toEqual([]);
    }
  });

  it('rings: fewer part numbers, then fewer left over of what is opened', () => {
    const stack = (pieces: { id: string; thickness: number; stock: number | null }[], gap: number, counts = [2]) => {
      const read = readShimRequest({
        format: 'fettle.shim-request/1',
        unit: 'mm',
        kind: 'ring-shims',
        low: 0.07,
        high: 0.15,
        aim: 0.1,
        gap,
        counts,
        pieces,
      });
      if (!read.ok) throw new Error(JSON.stringify(read.faults));
      return shims(read.request).chosen.map(({ id, count }) => `${id}×${count}`);
    };
    // 0.20 + 0.30 and 0.25 twice come to the same; so do two rings of one id and one of each of two.
    const thick = { id: 'thick', thickness: 0.3, stock: 5 };
    const thin = { id: 'thin', thickness: 0.2, stock: 5 };
    expect(stack([thick, thin, { id: 'middle', thickness: 0.25, stock: 2 }], 0.6)).toEqual(['middle×2']);
    const middle = (id: string, stock: number) => ({ id, thickness: 0.25, stock });
    expect(stack([middle('one', 1), middle('many', 8), middle('pair', 2)], 0.6)).toEqual(['pair×2']);
    // Two part numbers either way: the packets that are used up are taken.
    expect(
      stack([thick, thin, { id: 'odd', thickness: 0.35, stock: 1 }, { id: 'last', thickness: 0.15, stock: 1 }], 0.6),
    ).toEqual(['odd×1', 'last×1']);
  });
});

describe('dealing alike things out', () => {
  it('gives what is wanted or all there is', () => {
    expect(dealOut([], 3)).toEqual([]);
    expect(dealOut([1, 1], 3)).toEqual([1, 1]);
    expect(dealOut([0, Number.POSITIVE_INFINITY, 2], 3)).toEqual([0, 1, 2]);
    expect(dealOut([5, 3], 0)).toEqual([0, 0]);
  });
});
