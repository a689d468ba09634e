import fc from 'fast-check';
import * as highsModule from 'highs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { TypedLength } from '../document/typedLength.js';
import { jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { placeWords } from '../job/slices.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { bendTakes, lineRead } from './mainLineRead.js';
import { mainLineSlice, overLine, takenAtMains } from './mainLineSlice.js';
import { offNeighbours, straightness } from './straightness.js';

const points = (...values: number[]) => values.map((value, at) => ({ at, value }));
const um = (value: number) => nanometres(Math.round(value * 1000));
const AT = '2026-02-03T08:00:00.000Z';
const length = (value: number): TypedLength => ({
  text: String(value / 1000),
  unit: 'mm',
  nm: um(value),
  by: 'Wren',
  at: AT,
});
const byMain = (...values: (number | null)[]) =>
  Object.fromEntries(values.flatMap((value, at) => (value === null ? [] : [[`M${at + 1}`, length(value)]])));
const line = (height: (number | null)[], side: (number | null)[] = [], place: (number | null)[] = []) => ({
  height: byMain(...height),
  side: byMain(...side),
  place: byMain(...place),
});

type Solver = Awaited<ReturnType<(typeof highsModule)['default']['default']>>;
let solver: Solver;
beforeAll(async () => {
  const load = highsModule.default as unknown as () => Promise<Solver>;
  solver = await load();
});

/** The minimum zone as a linear programme, solved by HiGHS: the least w with 0 <= value − a − b·at <= w. */
function byProgramme(of: readonly { readonly at: number; readonly value: number }[]): number {
  const term = (factor: number, name: string) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`;
  const rows = of.flatMap(({ at, value }, nth) => [
    `c${nth}: a ${term(at, 'b')} <= ${value}`,
    `d${nth}: a ${term(at, 'b')} + w >= ${value}`,
  ]);
  const text = `Minimize\n w\nSubject To\n ${rows.join('\n ')}\nBounds\n a free\n b free\nEnd`;
  return solver.solve(text).ObjectiveValue;
}

describe('straightness', () => {
  // By hand. A gable: the line through its feet and the one through its top are 3 apart; by least squares the feet are −1, the top is 2.
  it('of a gable, of a step and of a line is what one works out by hand', () => {
    const gable = straightness(points(0, 3, 0));
    expect([gable.minimumZone, gable.leastSquares]).toEqual([3, expect.closeTo(3, 9)]);
    expect(gable.off.map((one) => Math.round(one))).toEqual([-1, 2, -1]);
    // A step: the slope of the least squares is 0.4, so that the inner ones are 0.6 of a step apart from their line, both ways.
    const step = straightness(points(0, 0, 1, 1));
    expect(step.minimumZone).toBeCloseTo(0.5, 9);
    expect(step.leastSquares).toBeCloseTo(0.6, 9);
    expect(straightness(points(1, 3, 5, 7))).toMatchObject({ minimumZone: 0 });
    expect(() =>
      straightness([
        { at: 1, value: 1 },
        { at: 1, value: 2 },
      ]),
    ).toThrow(RangeError);
  });

  it('by the minimum zone is that of a general linear programme, for up to 20 mains, and never above the least squares', () => {
    const mains = fc.array(fc.integer({ min: -80, max: 80 }), { minLength: 3, maxLength: 20 });
    const gaps = fc.array(fc.integer({ min: 40, max: 160 }), { minLength: 20, maxLength: 20 });
    fc.assert(
      fc.property(mains, gaps, (values, between) => {
        let at = 0;
        const own = values.map((value, nth) => {
          at += between[nth]!;
          return { at, value };
        });
        const { minimumZone, leastSquares } = straightness(own);
        expect(minimumZone).toBeCloseTo(byProgramme(own), 6);
        expect(minimumZone).toBeLessThanOrEqual(leastSquares + 1e-9);
      }),
      { numRuns: 150, seed: 5 },
    );
  });

  it('does not change where the bar lies askew, or the places are told in another unit', () => {
    const own = points(4, -2, 7, 0, 3);
    const askew = own.map(({ at, value }) => ({ at: at * 25.4, value: value + 11 + 0.37 * at }));
    const [one, other] = [straightness(own), straightness(askew)];
    expect(other.minimumZone).toBeCloseTo(one.minimumZone, 9);
    expect(other.leastSquares).toBeCloseTo(one.leastSquares, 9);
  });
});

describe('the line of the mains', () => {
  const layout = { mains: 5 };

  it('tells what each main is off its neighbours by their distances', () => {
    expect(offNeighbours({ at: 0, value: 0 }, { at: 1, value: 5 }, { at: 4, value: 8 })).toBe(3);
    const read = lineRead(layout, line([0, 10, 40, 10, 0], [], [0, 100_000, 200_000, 300_000, 400_000]), 'height')!;
    expect(read.isEven).toBe(false);
    expect(read.mains.map((one) => one.offNeighbours)).toEqual([null, um(-10), um(30), um(-10), null]);
    expect(read.mains.map((one) => one.offEnds)).toEqual([um(0), um(10), um(40), um(10), um(0)]);
  });

  it('is not told by two mains; a main that was not read leaves out what hangs on it', () => {
    expect(lineRead(layout, line([0, 10]), 'height')).toBeNull();
    const read = lineRead(layout, line([0, 10, null, 10, 0]), 'height')!;
    expect(read.isEven).toBe(true);
    expect(read.mains.map(({ main, offNeighbours: off }) => [main, off])).toEqual([
      ['M1', null],
      ['M2', null],
      ['M4', null],
      ['M5', null],
    ]);
    // Distances that do not grow are none.
    expect(lineRead(layout, line([0, 1, 2, 3, 4], [], [0, 100, 90, 300, 400]), 'height')?.isEven).toBe(true);
  });

  it('and the bend of the shaft take from the clearance between their difference and their sum', () => {
    const turn = (tir: number) => ({ '0': length(0), '180': length(tir) });
    const runout = { mains: { M3: turn(10) } };
    const flat = line([0, 0, 20, 0, 0], [0, 0, 15, 0, 0]);
    const taken = bendTakes(layout, flat, runout);
    // Up 20 and sideways 15 are 25 off; the shaft is bent by 5: 2 × 20 to 2 × 30.
    expect(taken.find(({ main }) => main === 'M3')).toEqual({ main: 'M3', low: um(40), high: um(60) });
    expect(taken.find(({ main }) => main === 'M1')).toEqual({ main: 'M1', low: um(0), high: um(0) });
    expect(bendTakes(layout, line([]), runout)).toEqual([{ main: 'M3', low: um(10), high: um(10) }]);
    expect(bendTakes(layout, line([]), { mains: {} })).toEqual([]);
  });

  it('agrees with a shaft that is turned step by step in its bore', () => {
    const [off, bend] = [um(17), um(9)];
    const distances = Array.from({ length: 720 }, (_, step) => {
      const angle = (step * Math.PI) / 360;
      return 2 * Math.hypot(off + bend * Math.cos(angle), bend * Math.sin(angle));
    });
    const turn = { '0': length(0), '180': length(18) };
    const [taken] = bendTakes(layout, line([0, 0, 17, 0, 0]), { mains: { M3: turn } }).filter(
      ({ main }) => main === 'M3',
    );
    expect(Math.min(...distances)).toBeCloseTo(taken!.low, -1);
    expect(Math.max(...distances)).toBeCloseTo(taken!.high, -1);
  });
});

describe('the stage', () => {
  const usual = usualLayout(5, 4, 1, 3);
  if (!usual.ok) throw new Error(usual.message);
  const base = newJob('Sedge 4', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const limit = (high: number) => ({ low: um(0), high: um(high), source: 'book, p. 7' });
  const engine = (height: (number | null)[], limits: object = {}) =>
    jobDocumentSchema.parse({ ...base, limits: { ...base.limits, ...limits }, mainLine: line(height) });
  const facts = (...given: Parameters<typeof engine>) => jobFacts(engine(...given), []);

  it('stops the work where the line, or one main, is over the limit of the data sheet, and judges nothing without one', () => {
    const bent = [0, 0, 40, 0, 0];
    expect(overLine(engine(bent))).toEqual([]);
    expect(overLine(engine(bent, { mainLine: limit(30) }))).toEqual([{ direction: 'height', main: null, by: um(40) }]);
    const single = facts(bent, { mainNeighbours: limit(25) });
    expect(mainLineSlice.state(single)).toBe('attention');
    expect(mainLineSlice.todos(single)).toEqual([
      { urgency: 'blocked', todo: 'M3 is 0.040 mm off the line of its neighbours: read again, then line-bore' },
    ]);
    expect(mainLineSlice.todos(facts(bent, { mainLine: limit(30) }))[0]?.todo).toBe(
      'Mains out of line by 0.040 mm: read again, then line-bore',
    );
  });

  it('is open, begun and done as the mains are read, and prints what was found', () => {
    expect(mainLineSlice.state(facts([]))).toBe('open');
    expect(mainLineSlice.state(facts([0, 1, 2, null, 1]))).toBe('started');
    expect(mainLineSlice.state(facts([0, 1, 2, 0, 1]))).toBe('done');
    const blocks = mainLineSlice.sheet!(facts([0, 0, 20, 0, 0]));
    expect(blocks[0]).toMatchObject({ kind: 'table', title: expect.stringContaining('straight within 0.020 mm') });
    expect(mainLineSlice.sheet!(facts([]))).toEqual([]);
    expect(takenAtMains(facts([0, 0, 20, 0, 0])).find(({ main }) => main === 'M3')).toEqual({
      main: 'M3',
      low: um(40),
      high: um(40),
      clearance: null,
    });
    expect(placeWords(['mainLine', 'height', 'M3'], engine([]))).toBe('line of the mains, height at M3');
  });
});
