import { describe, expect, it } from 'vitest';
import { seeded } from '../../measure/seeded.js';
import { readShimRequest, type ShimRequest } from '../format/shimRequest.js';
import { shims } from '../shims.js';
import { randomShims } from '../testing/randomShims.js';
import { everyChoice } from './everyChoice.js';
import { type JobsShimPart, jobsShims } from './jobsShims.js';
import { shimOutcome } from './shimOutcome.js';

function read(input: object): ShimRequest {
  const result = readShimRequest(input);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.request;
}

const stack = (gap: number, thicknesses: Record<string, number>, stock = 2) =>
  read({
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'ring-shims',
    low: 0.07,
    high: 0.15,
    aim: 0.1,
    gap,
    counts: [2],
    pieces: Object.entries(thicknesses).map(([id, thickness]) => ({ id, thickness, stock })),
  });
const part = (key: string, request: ShimRequest): JobsShimPart => ({
  key,
  request,
  lines: new Map(request.pieces.map(({ id }) => [id, id])),
});

describe('every choice of a request', () => {
  it('begins with the one of least cost, and holds allowed ones only', () => {
    const random = seeded(5);
    let found = 0;
    for (let at = 0; at < 600; at += 1) {
      const request = read(randomShims(random, at));
      const plan = shims(request);
      const [first, ...others] = everyChoice(request);
      expect(first === undefined, String(at)).toBe(plan.status === 'infeasible');
      if (!first) continue;
      found += 1;
      expect(first.cost).toBeCloseTo(plan.cost!, 6);
      for (const { chosen } of [first, ...others]) expect(shimOutcome(request, chosen)!.broken).toEqual([]);
    }
    expect(found).toBeGreaterThan(150);
  });
});

describe('several stacks from one shelf', () => {
  const RINGS = { thin: 0.24, thick: 0.25 };

  it('go to where they serve best in all, not to who comes first', () => {
    // By hand: 0.58 takes two thin ones, on the aim; 0.59 a thin and a thick one, or two thin ones at 0.11, off by 100 µm².
    const two = [part('first', stack(0.58, RINGS)), part('second', stack(0.59, RINGS))];
    const plan = jobsShims(
      two,
      new Map([
        ['thin', 3],
        ['thick', 1],
      ]),
    );
    expect(plan).toMatchObject({ status: 'optimal', cost: 0, bound: 0 });
    expect(plan.choices.get('second')!.result).toBe(0.1);
    const fewer = jobsShims(
      two,
      new Map([
        ['thin', 2],
        ['thick', 2],
      ]),
    );
    // Two thin ones for the first and two thick ones for the second, at 0.09: 2 · 100.
    expect(fewer).toMatchObject({ status: 'optimal', cost: 200 });
  });

  it('say who cannot be served alone, and who competes', () => {
    const far = [part('near', stack(0.58, RINGS)), part('far', stack(0.9, RINGS))];
    expect(jobsShims(far, new Map([['thin', 2]]))).toMatchObject({
      status: 'optimal',
      cost: 0,
      alone: ['far'],
    });
    const both = [part('one', stack(0.58, RINGS)), part('other', stack(0.58, RINGS))];
    expect(jobsShims(both, new Map([['thin', 3]]))).toMatchObject({
      alone: [],
      competing: ['one', 'other'],
      isOneEnough: true,
    });
  });

  it('name who competes where several have to be left out', () => {
    // Two rings of the only kind: one engine of four can be served.
    const four = ['a', 'b', 'c', 'd'].map((key) => part(key, stack(0.58, RINGS)));
    const plan = jobsShims(four, new Map([['thin', 2]]));
    expect(plan).toMatchObject({ status: 'infeasible', alone: [], isOneEnough: false });
    expect(plan.competing).toHaveLength(2);
  });

  it('cost the least that going through all of it finds', () => {
    const random = seeded(8);
    let served = 0;
    let competing = 0;
    for (let at = 0; at < 800; at += 1) {
      const rings = Object.fromEntries([1, 2, 3, 4].map((id) => [`r${id}`, 0.22 + Math.floor(random() * 12) / 100]));
      const parts = [1, 2, 3].map((key) => part(`e${key}`, stack(0.5 + Math.floor(random() * 24) / 100, rings)));
      const stock = new Map(Object.keys(rings).map((id) => [id, Math.floor(random() * 3)]));
      // The plain way: every choice of each with every choice of the others.
      const isThere = (choice: { chosen: readonly { id: string; count: number }[] }) =>
        choice.chosen.every(({ id, count }) => count <= stock.get(id)!);
      // Whom nothing on the shelf serves is left out.
      const own = parts.map(({ request }) => everyChoice(request).filter(isThere));
      const lists = own.map((list) => (list.length === 0 ? [{ cost: 0, chosen: [] }] : list));
      if (own.every((list) => list.length === 0)) continue;
      let least = Number.POSITIVE_INFINITY;
      for (const a of lists[0]!)
        for (const b of lists[1]!)
          for (const c of lists[2]!) {
            const count = new Map<string, number>();
            for (const { id, count: more } of [...a.chosen, ...b.chosen, ...c.chosen]) {
              count.set(id, (count.get(id) ?? 0) + more);
            }
            if ([...count].every(([id, many]) => many <= stock.get(id)!))
              least = Math.min(least, a.cost + b.cost + c.cost);
          }
      const plan = jobsShims(parts, stock);
      expect(plan.status, String(at)).toBe(Number.isFinite(least) ? 'optimal' : 'infeasible');
      if (plan.cost === null) {
        competing += 1;
        expect(plan.competing.length).toBeGreaterThan(1);
        const without = (left: string) =>
          jobsShims(
            parts.filter(({ key }) => plan.competing.includes(key) && key !== left),
            stock,
          );
        for (const left of plan.competing) expect(without(left).status, String(at)).toBe('optimal');
      } else {
        served += 1;
        expect(plan.cost).toBeCloseTo(least, 6);
      }
    }
    expect(served).toBeGreaterThan(30);
    expect(competing).toBeGreaterThan(5);
  });
});
