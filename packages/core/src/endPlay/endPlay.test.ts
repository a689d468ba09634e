import { describe, expect, it } from 'vitest';
import { chanceText } from '../clearance/chanceText.js';
import { crushAsk, peeled } from '../crush/crushAsk.js';
import { crushRead, jointState } from '../crush/crushRead.js';
import { BLANK_CRUSH, BLANK_JOINT, crushAim, type Joint } from '../crush/crushSchema.js';
import { readShimRequest } from '../fit/format/shimRequest.js';
import { shims } from '../fit/shims.js';
import { nanometres } from '../measure/nanometres.js';
import { normalChance } from '../measure/normalChance.js';
import { seeded } from '../measure/seeded.js';
import { chooseAgain, settleSeen } from './chooseAgain.js';
import { dressingPasses, endPlaySteps } from './endPlayAdvice.js';
import { acceptedPieces, endPlayAsk, type FreePieces, type PieceAsk } from './endPlayAsk.js';
import { endPlayBefore, endPlayNow, endPlayRound, endPlayVerdict, predictionMissed } from './endPlayRounds.js';
import { blankEndPlay, type EndPlay, type EndPlayReading, type Moment } from './endPlaySchema.js';

const um = (value: number) => nanometres(value * 1000);
const LIMIT = { low: um(70), high: um(270) };
const stamp = { by: 'Wren', at: '2026-01-02T03:04:05.000Z' };

function endPlay(read: [Moment, number][], parts: Partial<EndPlay> = {}): EndPlay {
  const readings = read.map(([moment, value], at): [string, EndPlayReading] => [
    `r${at}`,
    { moment, angle: 0, text: String(value / 1000), unit: 'mm', nm: um(value), ...stamp },
  ]);
  return { ...blankEndPlay('mm'), readings: Object.fromEntries(readings), ...parts };
}

const washer = (thickness: number, free: number | null = 4, more: Partial<FreePieces[string]> = {}) => ({
  kind: 'washer' as const,
  name: String(thickness),
  thickness: um(thickness),
  half: 'either' as const,
  free,
  ...more,
});
const FITTED = { front: um(2_360), rear: um(2_360), width: null };

function planOf(asked: PieceAsk) {
  if (!asked.ok) throw new Error(asked.reason);
  const read = readShimRequest(asked.request);
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return shims(read.request);
}

describe('conformance probability, against JCGM 106:2012 (normal model)', () => {
  it.each([
    ['T03-16', 0.0029, 0.0001, 0.841345],
    ['T03-17', 0.003, 0.0001, 0.5],
    ['T03-19', 0.0031, 0.0001, 0.158655],
    ['T03-20', 0.0016, 0.0002, 0.691462],
  ])('%s', (_, mean, uncertainty, expected) => {
    expect(normalChance(mean, uncertainty, { low: 0.0015, high: 0.003 })).toBeCloseTo(expected, 5);
  });

  it('is certain where nothing is uncertain', () => {
    expect(normalChance(5, 0, { low: 4, high: 5 })).toBe(1);
    expect(normalChance(5.1, 0, { low: 4, high: 5 })).toBe(0);
  });
});

describe('end play readings', () => {
  it('are taken together by their moment; the last moment is what the end play is now', () => {
    const read = endPlay([
      ['found', 40],
      ['found', 50],
      ['seated', 60],
    ]);
    expect(endPlayRound(read, 'found')).toMatchObject({ count: 2, mean: um(45), apart: um(10) });
    expect(endPlayNow(read)?.moment).toBe('seated');
    expect(endPlayBefore(read, false)?.mean).toBe(um(60));
    expect(endPlayBefore(read, true)).toBeNull();
    expect(endPlayNow(blankEndPlay('mm'))).toBeNull();
  });

  it('are in doubt when repeats differ by more than 0.025 mm or 0.001 in (common practice)', () => {
    const doubtful = (other: number) =>
      endPlayRound(
        endPlay([
          ['found', 100],
          ['found', other],
        ]),
        'found',
      )!.isDoubtful;
    expect([doubtful(125), doubtful(126)]).toEqual([false, true]);
    expect(blankEndPlay('in').repeatWithin).toBe(25_400);
  });

  it('are known better by repeats that agree, and worse by those that do not', () => {
    // By hand: 5 µm of the dial alone; with 100 and 110, s²/n = 50 / 2 = 25, √(25 + 25) = 7.07.
    expect(endPlayRound(endPlay([['found', 100]]), 'found')!.uncertainty).toBe(5_000);
    expect(
      endPlayRound(
        endPlay([
          ['found', 100],
          ['found', 110],
        ]),
        'found',
      )!.uncertainty,
    ).toBeCloseTo(7_071, 0);
  });

  it('that rest on few repeats are told with more than twice their uncertainty', () => {
    // Student's t for 95.45 % (JCGM 100:2008, table G.2; from memory): 13.97 with one degree of freedom.
    const round = (dial: number, ...found: number[]) =>
      endPlayRound({ ...endPlay(found.map((one) => ['found', one])), uncertainty: nanometres(dial) }, 'found')!;
    const bare = round(0, 100, 110);
    expect([bare.freedom, bare.expanded / bare.uncertainty]).toEqual([1, expect.closeTo(13.97, 1)]);
    // The dial is certain: with it the repeats matter less. By hand: u² = 25 + 25, ν = 50² / (25² / 1) = 4.
    const both = round(5_000, 100, 110);
    expect([both.freedom, both.expanded / both.uncertainty]).toEqual([expect.closeTo(4, 6), expect.closeTo(2.87, 1)]);
    expect(round(5_000, 100).expanded).toBe(10_000);
    const limit = { low: um(100), high: um(150) };
    const [few, many] = [both, { ...both, freedom: Number.POSITIVE_INFINITY }].map(
      (one) => endPlayVerdict(one, limit, 0).chance,
    );
    expect(few).toBeLessThan(many!);
  });

  it('cover what is true as often as they say, from two repeats on', () => {
    const random = seeded(5);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    for (const count of [2, 3, 5]) {
      let inside = 0;
      const rounds = 3000;
      for (let at = 0; at < rounds; at += 1) {
        const found = Array.from(
          { length: count },
          () => ['found', Math.round(1000 + 40 * normal())] as ['found', number],
        );
        const { mean, expanded } = endPlayRound({ ...endPlay(found), uncertainty: nanometres(0) }, 'found')!;
        if (Math.abs(mean - 1_000_000) <= expanded) inside += 1;
      }
      // 95.45 %; a standard deviation is 0.38 %.
      expect(Math.abs(inside / rounds - 0.9545)).toBeLessThan(0.015);
    }
  });

  it('are judged with their chance', () => {
    const at = (mean: number) =>
      endPlayVerdict({ mean: um(mean), smallest: um(mean), largest: um(mean), uncertainty: 5_000 }, LIMIT, 0.1);
    expect(at(60)).toMatchObject({ state: 'tight', by: um(10) });
    expect(at(60).chance).toBeCloseTo(0.0228, 3);
    expect(at(280).state).toBe('loose');
    expect([at(75).state, at(170).state]).toEqual(['close', 'inside']);
    expect([chanceText(at(170).chance), chanceText(at(-500).chance)]).toEqual(['over 99 %', 'below 1 %']);
  });

  it('at two angles are judged on the smallest and the largest, and the aim on the mean', () => {
    const limit = { low: um(100), high: um(150) };
    const turned = (zero: number, half: number) => {
      const { readings, ...rest } = endPlay([
        ['found', zero],
        ['found', half],
      ]);
      const [one, other] = Object.entries(readings);
      return { ...rest, readings: { [one![0]]: one![1], [other![0]]: { ...other![1], angle: 180 as const } } };
    };
    const round = (read: EndPlay) => endPlayRound(read, 'found')!;
    expect(round(turned(93, 117))).toMatchObject({
      mean: um(105),
      smallest: um(93),
      largest: um(117),
      apart: 0,
      isDoubtful: false,
      angles: [
        { angle: 0, mean: um(93) },
        { angle: 180, mean: um(117) },
      ],
    });
    const judged = (read: EndPlay) => endPlayVerdict(round(read), limit, 0.1);
    expect(judged(turned(93, 117))).toMatchObject({ state: 'tight', by: um(7) });
    expect(judged(turned(117, 93)).chance).toBeLessThan(0.1);
    expect(judged(turned(140, 156))).toMatchObject({ state: 'loose', by: um(6) });
    expect(judged(turned(110, 130))).toMatchObject({ state: 'inside' });
    // Further apart than the limits: no piece brings both inside, and none is asked for.
    expect(judged(turned(90, 160))).toMatchObject({ state: 'tight', isUneven: true });
    expect(endPlaySteps(turned(90, 160), 'washers', limit, 'mm', true).map(({ kind }) => kind)).toEqual([
      'seat',
      'stop',
    ]);
    const fitted = { front: um(2_000), rear: um(2_000), width: null };
    const pieces = { one: { kind: 'washer' as const, name: '', thickness: um(1_980), free: null } };
    const asked = (read: EndPlay) => endPlayAsk({ ...read, fitted }, 'washers', limit, 'mm', pieces);
    expect(asked(turned(90, 160))).toMatchObject({ ok: false, reason: 'uneven' });
    // By hand: the mean 0.105 may come to 0.112 (0.1 + 0.012) at least and 0.138 at most.
    expect(asked(turned(93, 117))).toMatchObject({ request: { reading: 0.105, low: 0.112, high: 0.138, aim: 0.125 } });
  });

  it('miss a prediction only by more than repeats may differ', () => {
    const chosen = (read: number) =>
      endPlay([['fitted', read]], { choice: { ...stamp, chosen: [], predicted: um(160), shift: um(0) } });
    expect(predictionMissed(chosen(180))).toBeNull();
    expect(predictionMissed(chosen(186))).toBe(um(26));
    expect(predictionMissed(chosen(130))).toBe(um(-30));
  });
});

describe('what to do about an end play', () => {
  const steps = (read: EndPlay, hasPlan: boolean) => endPlaySteps(read, 'washers', LIMIT, 'mm', hasPlan);

  it('is first to line the halves up, then other washers, then the plate', () => {
    const tight = endPlay([['found', 50]]);
    expect(steps(tight, true).map(({ kind }) => kind)).toEqual(['seat', 'pieces', 'dress']);
    const seated = endPlay([
      ['found', 50],
      ['seated', 60],
    ]);
    expect(steps(seated, true).map(({ kind }) => kind)).toEqual(['pieces', 'dress']);
    expect(steps(seated, false).map(({ kind }) => kind)).toEqual(['dress', 'stop']);
  });

  it('is never to dress a coating', () => {
    const coated = endPlay([['seated', 60]], { coating: 'coated' });
    expect(steps(coated, false)).toEqual([{ kind: 'stop', why: 'machining' }]);
    expect(steps(endPlay([['seated', 60]]), false)[0]).toMatchObject({ kind: 'dress', isUncoated: false });
  });

  it('too loose: thicker washers, or the worn face', () => {
    const loose = endPlay([['found', 300]]);
    expect(steps(loose, true)).toEqual([{ kind: 'pieces', way: 'thicker' }]);
    expect(steps(loose, false)).toEqual([{ kind: 'stop', why: 'worn-face' }]);
    expect(steps(endPlay([['found', 170]]), true)).toEqual([]);
  });

  it('takes off aim less reading in all, half from each face, less and less (common practice)', () => {
    for (const [from, to] of [
      [60, 170],
      [0, 7],
      [50, 90],
      [3, 1_003],
    ] as const) {
      const passes = dressingPasses(um(from), um(to), 'mm');
      expect(passes.reduce((sum, { perFace }) => sum + 2 * perFace, 0)).toBe(um(to - from));
      expect(passes.at(-1)!.expected).toBe(um(to));
      for (const [at, { expected }] of passes.entries())
        expect(expected).toBeGreaterThan(passes[at - 1]?.expected ?? um(from));
      expect(passes.length).toBeLessThan(40);
    }
    expect(dressingPasses(um(170), um(170), 'mm')).toEqual([]);
  });
});

describe('choosing again', () => {
  const chosen = (place: 'front.upper' | 'rear.upper' | 'stack', thickness: number) => ({
    place,
    piece: 'a',
    label: 'a',
    thickness: um(thickness),
    count: place === 'stack' ? 2 : 1,
  });
  const choice = (...list: ReturnType<typeof chosen>[]) => ({
    ...stamp,
    chosen: list,
    predicted: um(160),
    shift: um(0),
  });

  it('starts from what is in now, once it was read with that in', () => {
    const washers = { fitted: FITTED, choice: choice(chosen('front.upper', 2_310), chosen('rear.upper', 2_335)) };
    const read = endPlay(
      [
        ['found', 50],
        ['seated', 60],
        ['fitted', 130],
      ],
      washers,
    );
    const again = chooseAgain(read, 'washers');
    expect(again).toMatchObject({ choice: null, fitted: { front: um(2_310), rear: um(2_335) } });
    expect(endPlayBefore(again, false)).toMatchObject({ moment: 'found', mean: um(130), count: 1 });
    expect(Object.keys(again.readings)).toHaveLength(3);
  });

  it('only gives the choice up while it was not read', () => {
    const read = endPlay([['seated', 60]], { fitted: FITTED, choice: choice(chosen('front.upper', 2_310)) });
    expect(chooseAgain(read, 'washers')).toEqual({ ...read, choice: null });
  });

  it('keeps the gap of a stack, which says what it settles', () => {
    const read = endPlay(
      [
        ['without', 680],
        ['fitted', 188],
      ],
      { choice: choice(chosen('stack', 240)) },
    );
    // By hand: 0.680 − 2 · 0.240 − 0.188 = 0.012.
    expect(settleSeen(read, um(680), um(188))).toBe(um(12));
    expect(settleSeen(read, um(680), null)).toBeNull();
    const again = chooseAgain(read, 'rings');
    expect(endPlayNow(again)).toMatchObject({ moment: 'without', mean: um(680) });
  });
});

describe('choosing for the end play', () => {
  const pieces: FreePieces = { a: washer(2_310), b: washer(2_360), c: { ...washer(2_310), kind: 'flanged' } };

  it('asks for what is missing', () => {
    const read = endPlay([['found', 60]], { fitted: FITTED });
    const reason = (one: EndPlay, kind: Parameters<typeof endPlayAsk>[1], limit: typeof LIMIT | null, own = pieces) => {
      const asked = endPlayAsk(one, kind, limit, 'mm', own);
      return asked.ok ? 'asked' : asked.reason;
    };
    expect(reason(read, null, LIMIT)).toBe('no-kind');
    expect(reason(read, 'washers', null)).toBe('no-limits');
    expect(reason(blankEndPlay('mm'), 'washers', LIMIT)).toBe('not-read');
    expect(reason(endPlay([['found', 60]]), 'washers', LIMIT)).toBe('no-fitted');
    expect(reason(read, 'rings', LIMIT)).toBe('not-read');
    expect(reason(read, 'washers', LIMIT, {})).toBe('no-pieces');
    expect(reason(read, 'washers', LIMIT)).toBe('asked');
  });

  it('takes the washers that bring it to its aim, from the reading after the halves were lined up', () => {
    const read = endPlay(
      [
        ['found', 50],
        ['seated', 60],
      ],
      { fitted: FITTED },
    );
    const asked = endPlayAsk(read, 'washers', LIMIT, 'mm', pieces);
    const plan = planOf(asked);
    expect(plan).toMatchObject({ status: 'optimal', result: 0.16 });
    const choice = acceptedPieces(asked as PieceAsk & { ok: true }, plan as never, pieces, stamp);
    expect(choice.predicted).toBe(um(160));
    expect(choice.chosen.map(({ piece }) => piece)).toEqual(['a', 'a', 'a', 'a']);
  });

  it('takes no more of a piece than is free', () => {
    const read = endPlay([['found', 60]], { fitted: FITTED });
    const few = { a: washer(2_310, 2), b: washer(2_360) };
    // Two thin ones suffice for one face: 0.11, and the shaft moves by half of the difference.
    expect(planOf(endPlayAsk(read, 'washers', LIMIT, 'mm', few))).toMatchObject({
      result: 0.11,
      shift: expect.anything(),
    });
    const none = { a: washer(2_310, 0), b: washer(2_360) };
    expect(planOf(endPlayAsk(read, 'washers', LIMIT, 'mm', none)).status).toBe('infeasible');
  });

  it('takes rings from the gap, less what settles', () => {
    const rings: FreePieces = { x: { kind: 'ring', name: '24', thickness: um(240), free: 3 } };
    const read = endPlay([['without', 680]], { settle: um(10), counts: [2] });
    // By hand: 0.680 − 2 · 0.240 − 0.010 = 0.190.
    expect(planOf(endPlayAsk(read, 'rings', LIMIT, 'mm', rings)).result).toBe(0.19);
  });
});

describe('crush', () => {
  const joint = (left: [number, number], right: [number, number], shim = 400): Joint => ({
    ...BLANK_JOINT,
    left: { go: um(left[0]), noGo: um(left[1]), shim: um(shim) },
    right: { go: um(right[0]), noGo: um(right[1]), shim: um(shim) },
  });
  const limits = { low: um(75), high: um(150) };

  it('of each side is known to an interval; both have to share one (common practice)', () => {
    expect(crushRead(joint([80, 100], [90, 110]), 'split-line')?.shared).toEqual({ low: um(90), high: um(100) });
    expect(crushRead(joint([80, 90], [90, 100]), 'split-line')?.shared).toEqual({ low: um(90), high: um(90) });
    expect(jointState(joint([80, 90], [100, 110]), 'split-line', limits)).toBe('not-square');
    expect(jointState(joint([80, 100], [90, 110]), 'split-line', limits)).toBe('inside');
    expect(jointState(joint([60, 80], [60, 80]), 'split-line', limits)).toBe('loose');
    expect(jointState(joint([130, 160], [130, 160]), 'split-line', limits)).toBe('tight');
    expect(jointState(BLANK_JOINT, 'split-line', limits)).toBeNull();
  });

  it('rises with the shims by what both together are thicker', () => {
    const pieces: FreePieces = { a: { kind: 'shim', name: '0.42', thickness: um(420), free: 2 } };
    const asked = crushAsk({ ...BLANK_CRUSH, kind: 'split-line' }, joint([60, 80], [60, 80]), limits, 'mm', pieces);
    // By hand: the middle, 0.070, and twice 0.020.
    expect(planOf(asked)).toMatchObject({ status: 'optimal', result: 0.11 });
  });

  it('offers a laminated shim of which there is one to one side only, at whatever thickness', () => {
    const shims = (free: number): FreePieces => ({
      a: { kind: 'shim', name: 'Leaves', thickness: um(440), leaf: um(20), free },
      b: { kind: 'shim', name: '0.40', thickness: um(400), free: 1 },
    });
    const chosen = (free: number) => {
      const one = joint([60, 80], [60, 80]);
      const plan = planOf(crushAsk({ ...BLANK_CRUSH, kind: 'split-line' }, one, limits, 'mm', shims(free)));
      return plan.chosen.map(({ id }) => id).sort();
    };
    // By hand: 0.040 more in all, as evenly as can be: 0.420 twice; of one lamination 0.420 beside 0.400: 0.015 under the aim, weighed double, and 0.020 uneven, is less than 0.440 beside 0.400.
    expect(chosen(2)).toEqual(['Leaves shim peeled to 0.420 mm', 'Leaves shim peeled to 0.420 mm']);
    expect(chosen(1)).toEqual(['0.40 shim', 'Leaves shim peeled to 0.420 mm']);
  });

  it('is aimed at by what the caps are made of, where the data sheet gives a figure for aluminium', () => {
    const aims = { aim: um(100), aimAluminium: um(130) };
    expect(crushAim(aims, 'iron')).toBe(um(100));
    expect(crushAim(aims, 'aluminium')).toBe(um(130));
    expect(crushAim({ ...aims, aimAluminium: null }, 'aluminium')).toBe(um(100));
  });

  it('of white metal: the same off both sides lowers the clearance by as much; leaves peel off (common practice)', () => {
    const saddle: Joint = {
      ...BLANK_JOINT,
      clearance: um(150),
      left: { go: null, noGo: null, shim: um(203) },
      right: { go: null, noGo: null, shim: um(203) },
    };
    const pieces: FreePieces = { a: { kind: 'shim', name: '8 leaves', thickness: um(203), leaf: um(50), free: 2 } };
    const asked = crushAsk({ ...BLANK_CRUSH, kind: 'saddle' }, saddle, { low: um(40), high: um(60) }, 'mm', pieces);
    // By hand: two leaves of 0.050 off each side take 0.100 off the clearance.
    const plan = planOf(asked);
    expect(plan.result).toBe(0.05);
    expect(plan.chosen.map(({ id }) => id)).toEqual(Array(2).fill('8 leaves shim peeled to 0.103 mm'));
    const choice = acceptedPieces(asked as PieceAsk & { ok: true }, plan as never, pieces, stamp);
    expect(choice.chosen[0]).toMatchObject({ piece: 'a', thickness: um(103) });
    expect(peeled(um(203), um(50))).toEqual([203, 153, 103, 53].map(um));
  });
});
