import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { type ShimPlan, shimPlanSchema } from './format/shimPlan.js';
import { readShimRequest, type ShimRequest } from './format/shimRequest.js';
import { shimChoices } from './shims/shimAnswer.js';
import { shimOutcome } from './shims/shimOutcome.js';
import { withShimRemedy } from './shims/shimRemedies.js';
import { shims } from './shims.js';
import { randomShims } from './testing/randomShims.js';

function read(input: object): ShimRequest {
  const result = readShimRequest(input);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.request;
}
const answer = (input: object) => shims(read(input));

/** Whole nanometres, from the decimals that are written; twenty of them are more than any length here has. */
function nm(value: number, unit: 'mm' | 'in'): number {
  const scaled = BigInt(Math.round(value * 1e9)) * (unit === 'mm' ? 1_000_000n : 25_400_000n);
  const half = scaled < 0n ? -500_000_000n : 500_000_000n;
  return Number((scaled + half) / 1_000_000_000n);
}

interface Judged {
  readonly allowed: boolean;
  readonly cost: number;
  /** In half nanometres. */
  readonly result: number;
  readonly shift: number;
}

/** What the format says of one choice, written anew from its words: nothing here is shared with the search. */
function judge(request: ShimRequest, chosen: ShimPlan['chosen']): Judged {
  const of = (value: number) => nm(value, request.unit);
  const [low, high, aim] = [of(request.low), of(request.high), of(request.aim)];
  const piece = (id: string) => request.pieces.find((one) => one.id === id)!;
  const thick = (place: string) => {
    const entry = chosen.find((one) => one.place === place);
    return entry === undefined ? null : of(piece(entry.id).thickness);
  };
  const counts = new Map<string, number>();
  const isStocked = chosen.every(({ id, count }) => {
    const one = piece(id);
    const from = 'of' in one && one.of !== undefined ? `of ${one.of}` : `id ${id}`;
    counts.set(from, (counts.get(from) ?? 0) + count);
    return counts.get(from)! <= (one.stock ?? Number.POSITIVE_INFINITY);
  });
  const weigh = (result: number) => {
    const off = (result - 2 * aim) / 2000;
    return (off < 0 ? request.rules.tightWeight : 1) * off ** 2;
  };
  const isInside = (result: number) => 2 * low <= result && result <= 2 * high;
  const together = (places: string[], within: number) => {
    const sizes = places.map(thick).filter((one) => one !== null);
    return { most: Math.max(...sizes), isAlike: Math.max(...sizes) - Math.min(...sizes) <= within };
  };
  const alike = (given: number | undefined) => (given === undefined ? 5000 : of(given));
  switch (request.kind) {
    case 'ring-shims': {
      const number = chosen.reduce((sum, { count }) => sum + count, 0);
      const sum = chosen.reduce((total, { id, count }) => total + count * of(piece(id).thickness), 0);
      const result = 2 * (of(request.gap) - of(request.settle) - sum);
      const place = request.counts.indexOf(number);
      const cost = weigh(result) + request.rules.countPenalty * place;
      return { allowed: isStocked && place >= 0 && isInside(result), cost, result, shift: 0 };
    }
    case 'thrust-washers': {
      const { rules, fitted, halves } = request;
      const faces = (['front', 'rear'] as const).map((face) => ({
        ...together(
          halves.map((half) => `${face}.${half}`),
          alike(rules.alikeWithin),
        ),
        was: of(fitted[face]),
      }));
      const isMade = chosen.every(({ place, id }) => {
        const [face, half] = place.split('.');
        const one = request.pieces.find((other) => other.id === id)!;
        return (one.half === 'either' || one.half === half) && (one.face === undefined || one.face === face);
      });
      const result = 2 * faces.reduce((sum, { was, most }) => sum + was - most, of(request.reading));
      const shift = faces[0]!.most - faces[0]!.was - (faces[1]!.most - faces[1]!.was);
      const isNear = rules.maxShift === null || Math.abs(shift) <= 2 * of(rules.maxShift);
      return {
        allowed: isStocked && isMade && isNear && faces.every(({ isAlike }) => isAlike) && isInside(result),
        cost: weigh(result) + rules.shiftPenalty * (shift / 2000) ** 2,
        result,
        shift,
      };
    }
    case 'flanged-shell': {
      const { most, isAlike } = together(request.halves, alike(request.alikeWithin ?? request.rules.alikeWithin));
      const isMade = chosen.every(({ place, id }) => {
        const one = request.pieces.find((other) => other.id === id)!;
        return one.half === 'either' || one.half === place;
      });
      const result = 2 * (of(request.reading) + of(request.fitted.width) - most);
      return { allowed: isStocked && isMade && isAlike && isInside(result), cost: weigh(result), result, shift: 0 };
    }
    case 'split-line': {
      const { left, right } = request.sides;
      const [changeLeft, changeRight] = [thick('left')! - of(left.shim), thick('right')! - of(right.shim)];
      const change = changeLeft + changeRight;
      const sides = [left, right].map(({ go, noGo }) => [of(go) + change, of(noGo) + change] as const);
      const from = Math.max(...sides.map(([go]) => go));
      const to = Math.min(...sides.map(([, noGo]) => noGo));
      const isWithin = sides.every(([go, noGo]) => low <= go && noGo <= high);
      const uneven = (changeLeft - changeRight) / 1000;
      return {
        allowed: isStocked && from <= to && isWithin,
        cost: weigh(from + to) + request.rules.unevenPenalty * uneven ** 2,
        result: from + to,
        shift: 0,
      };
    }
    case 'saddle-shims': {
      const { isAlike } = together(['left', 'right'], alike(request.rules.alikeWithin));
      const changes = thick('left')! - of(request.fitted.left) + thick('right')! - of(request.fitted.right);
      const result = 2 * of(request.clearance) + changes;
      return { allowed: isStocked && isAlike && isInside(result), cost: weigh(result), result, shift: 0 };
    }
  }
}

/** Every choice there is: every piece at every place, or every stack. */
function* everyChoice(request: ShimRequest): Generator<ShimPlan['chosen']> {
  if (request.kind === 'ring-shims') {
    const counts: number[] = [];
    const deal = function* (at: number, left: number): Generator<ShimPlan['chosen']> {
      if (at === request.pieces.length) {
        if (left === 0) {
          yield request.pieces.flatMap(({ id }, one) =>
            counts[one]! > 0 ? [{ place: 'stack' as const, id, count: counts[one]! }] : [],
          );
        }
        return;
      }
      for (let count = 0; count <= left; count += 1) {
        counts[at] = count;
        yield* deal(at + 1, left - count);
      }
    };
    for (const number of new Set(request.counts)) yield* deal(0, number);
    return;
  }
  const places =
    request.kind === 'thrust-washers'
      ? request.halves.flatMap((half) => [`front.${half}`, `rear.${half}`] as const)
      : request.kind === 'flanged-shell'
        ? request.halves
        : (['left', 'right'] as const);
  let all: ShimPlan['chosen'][] = [[]];
  for (const place of places) {
    all = all.flatMap((chosen) => request.pieces.map(({ id }) => [...chosen, { place, id, count: 1 }]));
  }
  yield* all;
}

describe('shims against every choice there is', () => {
  const random = seeded(20_261_125);
  const seen = new Map<string, number>();
  const REQUESTS = 4_000;
  it(`answers ${REQUESTS} drawn requests of every kind with the least cost, and explains the others`, () => {
    for (let at = 0; at < REQUESTS; at += 1) {
      const input = randomShims(random, at);
      const request = read(input);
      const plan = shimPlanSchema.parse(shims(request));
      let least: Judged | null = null;
      for (const chosen of everyChoice(request)) {
        const judged = judge(request, chosen);
        if (judged.allowed && (least === null || judged.cost < least.cost)) least = judged;
      }
      const where = `${at}: ${JSON.stringify(input)}`;
      expect(plan.status, where).toBe(least ? 'optimal' : 'infeasible');
      if (least) {
        const own = judge(request, plan.chosen);
        expect(own.allowed, where).toBe(true);
        expect(plan.cost, where).toBeCloseTo(least.cost, 5);
        expect(own.cost, where).toBeCloseTo(least.cost, 5);
        expect(shimOutcome(request, plan.chosen), where).toEqual({
          result: plan.result,
          shift: plan.shift,
          broken: [],
        });
        const others = shimChoices(request, 4);
        expect(others.length, where).toBeGreaterThan(0);
        expect(new Set(others.map(({ result }) => result)).size, where).toBe(others.length);
        for (const other of others) {
          const judged = judge(request, other.chosen);
          expect(judged.cost, where).toBeCloseTo(other.cost, 5);
          const { broken } = shimOutcome(request, other.chosen)!;
          // They keep every rule but the limits.
          expect(broken.length === 0, where).toBe(judged.allowed);
          expect(['low', 'high'], where).toEqual(expect.arrayContaining([...broken]));
        }
        const insides = others.filter(({ chosen }) => judge(request, chosen).allowed);
        if (insides.length > 0) expect(insides[0]!.cost, where).toBeCloseTo(least.cost, 5);
        const per = request.unit === 'mm' ? 1e6 : 25.4e6;
        expect(Math.round(plan.result! * per * 2), where).toBe(own.result);
        expect(Math.round(plan.shift * per * 2), where).toBe(own.shift);
      } else {
        expect(plan.conflicts.length, where).toBeGreaterThan(0);
        expect([plan.cost, plan.result, plan.chosen], where).toEqual([null, null, []]);
        for (const { kind, remedies, message } of plan.conflicts) {
          expect(message, where).not.toMatch(/NaN|Infinity|undefined|null/u);
          seen.set(kind, (seen.get(kind) ?? 0) + 1);
          for (const remedy of remedies) {
            seen.set(remedy.kind, (seen.get(remedy.kind) ?? 0) + 1);
            const ends = remedy.kind === 'piece' ? [remedy.from, remedy.to] : [0];
            for (const end of ends) {
              expect(shims(withShimRemedy(request, remedy, end)!).status, `${where} ${JSON.stringify(remedy)}`).toBe(
                'optimal',
              );
            }
          }
        }
      }
      seen.set(`${request.kind} ${plan.status}`, (seen.get(`${request.kind} ${plan.status}`) ?? 0) + 1);
    }
    for (const kind of ['ring-shims', 'thrust-washers', 'flanged-shell', 'split-line', 'saddle-shims']) {
      expect(seen.get(`${kind} optimal`), kind).toBeGreaterThan(100);
      expect(seen.get(`${kind} infeasible`), kind).toBeGreaterThan(100);
    }
    for (const kind of ['short', 'not-alike', 'shift', 'not-square', 'none', 'piece', 'dress', 'limit']) {
      expect(seen.get(kind), kind).toBeGreaterThan(20);
    }
  });
});

const rings = (thicknesses: number[], stock: number | null = 1) =>
  thicknesses.map((thickness) => ({ id: `${thickness}`, thickness, stock }));
const END_PLAY = { format: 'fettle.shim-request/1', unit: 'in', low: 0.003, high: 0.006, aim: 0.0045 } as const;

describe('what a stack of rings leaves', () => {
  it('is the gap less the rings: 0.0120 in less 0.0070 in leaves 0.0050 in (common practice, T11-08)', () => {
    const plan = answer({ ...END_PLAY, kind: 'ring-shims', gap: 0.012, counts: [1], pieces: rings([0.007]) });
    expect(plan).toMatchObject({ status: 'optimal', result: 0.005, shift: 0 });
  });

  it('is less by what the final torque squeezes out (0.0005 in at a high torque: common practice)', () => {
    const request = { ...END_PLAY, kind: 'ring-shims', gap: 0.012, counts: [1], pieces: rings([0.007]) } as const;
    expect(answer({ ...request, settle: 0.0005 }).result).toBe(0.0045);
  });

  it('prefers three rings to two, as the list of counts says, but not at any price', () => {
    const pieces = rings([0.009, 0.0095, 0.01, 0.015, 0.0142]);
    const request = { ...END_PLAY, kind: 'ring-shims', gap: 0.0337, counts: [3, 2], pieces } as const;
    // 0.009 + 0.0095 + 0.010 leaves 0.0052: 0.0007 in over the aim, 316 µm². 0.015 + 0.0142 leaves 0.0045 and costs a step, 25 µm².
    expect(answer(request).chosen.map(({ id }) => id)).toEqual(['0.015', '0.0142']);
    const dear = { ...request, rules: { countPenalty: 400 } };
    expect(answer(dear).chosen.map(({ id }) => id)).toEqual(['0.009', '0.0095', '0.01']);
  });

  it('says what is nearest where nothing fits, and which ring would do', () => {
    const pieces = rings([0.01, 0.011, 0.02]);
    const plan = answer({ ...END_PLAY, kind: 'ring-shims', gap: 0.03, counts: [2], pieces });
    expect(plan.conflicts).toMatchObject([{ kind: 'short', below: 0, above: 0.009 }]);
    // Beside 0.011, a ring of 0.013 to 0.016 leaves 0.006 to 0.003.
    expect(plan.conflicts[0]!.remedies).toContainEqual({ kind: 'piece', place: 'stack', from: 0.013, to: 0.016 });
  });

  it('refuses to go through more than it can', () => {
    const random = seeded(7);
    const pieces = Array.from({ length: 400 }, (_, id) => ({ id: `${id}`, thickness: 0.2 + random(), stock: 9 }));
    const request = { ...END_PLAY, unit: 'mm', kind: 'ring-shims', gap: 6, counts: [9], pieces } as const;
    expect(() => answer({ ...request })).toThrow(/stacks of up to 9 rings/);
  });
});

describe('washers', () => {
  const pieces = [2.31, 2.34, 2.36, 2.41].map((thickness) => ({
    id: `${thickness}`,
    thickness,
    stock: 4,
    half: 'either' as const,
  }));
  const request = {
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'thrust-washers',
    low: 0.07,
    high: 0.27,
    aim: 0.17,
    reading: 0.06,
    fitted: { front: 2.36, rear: 2.36 },
    halves: ['upper', 'lower'],
    pieces,
  } as const;

  it('change the end play by what they are thinner, and move the shaft by half of what one face is', () => {
    // By hand: 0.06 + 2 · 2.36 − 2 · 2.31 = 0.16; thinner on both faces alike moves nothing.
    expect(answer({ ...request, pieces: [...pieces] })).toMatchObject({ result: 0.16, shift: 0 });
    const oneFace = answer({ ...request, rules: { shiftPenalty: 0 }, aim: 0.11, pieces: [...pieces] });
    expect(oneFace.result).toBe(0.11);
    expect(Math.abs(oneFace.shift)).toBe(0.025);
  });

  it('say how thick a pair would have to be where none will do', () => {
    const plan = answer({ ...request, low: 0.3, high: 0.4, aim: 0.35, pieces: [...pieces] });
    expect(plan.status).toBe('infeasible');
    const [conflict] = plan.conflicts;
    // With 2.31 on the other face: 0.06 + 4.72 − 2.31 − T between 0.3 and 0.4.
    expect(conflict!.faces).toContainEqual({
      face: 'front',
      from: expect.closeTo(2.07, 9),
      to: expect.closeTo(2.17, 9),
    });
  });
});

describe('crush', () => {
  const side = { go: 0.002, noGo: 0.0025, shim: 0.01 };
  const request = {
    format: 'fettle.shim-request/1',
    unit: 'in',
    kind: 'split-line',
    low: 0.003,
    high: 0.006,
    aim: 0.0045,
    pieces: rings([0.01, 0.011, 0.0112], 4),
  } as const;

  it('rises by what both shims together are thicker (common practice)', () => {
    const plan = answer({ ...request, sides: { left: side, right: side }, pieces: [...request.pieces] });
    // 0.00225 + 2 · 0.0011 = 0.00445 with one of each; with two of 0.0112 0.00465, even, off by 0.00015.
    expect(plan.result).toBeCloseTo(0.00465, 12);
    expect(new Set(plan.chosen.map(({ id }) => id)).size).toBe(1);
  });

  it('has no answer where the sides share nothing, and names it', () => {
    const far = { ...side, go: 0.003, noGo: 0.0035 };
    const plan = answer({ ...request, sides: { left: side, right: far }, pieces: [...request.pieces] });
    expect(plan.conflicts).toMatchObject([{ kind: 'not-square', remedies: [] }]);
    const touching = { ...side, go: 0.0025, noGo: 0.0035 };
    expect(answer({ ...request, sides: { left: side, right: touching }, pieces: [...request.pieces] }).status).toBe(
      'optimal',
    );
  });
});

it('names what is wrong with a request, and where', () => {
  const faults = (input: object) => {
    const result = readShimRequest(input);
    return result.ok ? [] : result.faults.map(({ path }) => path);
  };
  const good = { ...END_PLAY, kind: 'ring-shims', gap: 0.012, counts: [1], pieces: rings([0.007]) };
  expect(faults(good)).toEqual([]);
  expect(faults({ ...good, aim: 0.01 })).toEqual(['/aim']);
  // Beyond what can be a length it is told as such: it once ended the reader.
  expect(faults({ ...good, high: -1.8e216 })).toEqual(['/high']);
  expect(faults({ ...good, low: 1e300, aim: -1e300 })).toEqual(['/low', '/aim']);
  expect(faults({ ...good, pieces: [...good.pieces, ...good.pieces] })).toEqual(['/pieces/1/id']);
  const leaves = (stock: number | null) => ({ id: `${stock} left`, of: 'leaves', thickness: 0.01, stock });
  const side = { go: 0.002, noGo: 0.0025, shim: 0.01 };
  const { counts, gap, ...joint } = { ...good, kind: 'split-line', sides: { left: side, right: side } };
  expect(faults({ ...joint, pieces: [leaves(2), { ...leaves(2), id: 'other' }] })).toEqual([]);
  expect(faults({ ...joint, pieces: [leaves(null), leaves(2)] })).toEqual(['/pieces/1/stock']);
  expect(faults({ ...good, pieces: [{ id: 'a', thickness: -1, stock: 1 }] })).toEqual(['/pieces/0/thickness']);
  expect(faults({ ...good, kind: 'rings' })).toEqual(['/kind']);
  expect(faults({ ...good, gapp: 1 })).toEqual(['']);
});
