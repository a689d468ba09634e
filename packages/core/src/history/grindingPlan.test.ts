import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DrawerLine, drawerHalfSchema } from '../drawer/workshopDrawer.js';
import { newEngineType } from '../engineType/newEngineType.js';
import { jobOfType } from '../job/jobOfType.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { derivedUndersize } from '../shell/undersize.js';
import { type GrindingQuestion, grindingPlan, type JournalSize, type WornJournal } from './grindingPlan.js';
import { journalsToPlan } from './grindingSizes.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const journal = (id: string, smallest: number, largest = smallest, isOutOfShape = false): WornJournal => ({
  id,
  smallest: um(smallest),
  largest: um(largest),
  isOutOfShape,
});
const size = (name: string, under: number, price: number | null = 30, onShelf = 0): JournalSize => ({
  name,
  low: um(59_976 - under),
  high: um(59_994 - under),
  price,
  onShelf,
});
const SIZES = [size('', 0), size('0.25', 250), size('0.50', 500)];
const asked = (parts: Partial<GrindingQuestion>): GrindingQuestion => ({
  journals: [],
  sizes: SIZES,
  areAlike: true,
  perJournal: 20,
  setUp: 50,
  cleanUp: um(20),
  hardened: null,
  ...parts,
});

/** Every way there is to give the journals sizes, judged apart from the plan: in lengths and prices alone. */
function cheapest({ journals, sizes, areAlike, perJournal, setUp, cleanUp, hardened }: GrindingQuestion): number {
  const largest = Math.max(...sizes.map(({ high }) => high));
  let least = Number.POSITIVE_INFINITY;
  const walk = (chosen: readonly JournalSize[]) => {
    if (chosen.length < journals.length) {
      for (const one of areAlike && chosen.length > 0 ? [chosen[0]!] : sizes) walk([...chosen, one]);
      return;
    }
    const setUps = new Set<string>();
    let cost = 0;
    for (const [at, own] of journals.entries()) {
      const { name, low, high } = chosen[at]!;
      if (own.smallest >= low && own.largest <= high && !own.isOutOfShape) continue;
      const left = own.smallest - cleanUp;
      if (left < low) return;
      if (hardened !== null && (largest - Math.min(left, high)) / 2 > hardened) return;
      setUps.add(name);
      cost += perJournal;
    }
    for (const one of sizes) {
      const bought = Math.max(0, chosen.filter((other) => other === one).length - one.onShelf);
      if (bought > 0 && one.price === null) return;
      cost += bought * (one.price ?? 0);
    }
    least = Math.min(least, cost + setUps.size * setUp);
  };
  walk([]);
  return least;
}

describe('a grinding plan', () => {
  it('costs least, of all ways there are', () => {
    const question = fc.record({
      journals: fc.array(
        fc.record({
          at: fc.integer({ min: 59_300, max: 59_994 }),
          wide: fc.integer({ min: 0, max: 25 }),
          isOutOfShape: fc.boolean(),
        }),
        { minLength: 1, maxLength: 4 },
      ),
      prices: fc.array(fc.option(fc.integer({ min: 1, max: 90 }), { freq: 5 }), { minLength: 3, maxLength: 3 }),
      shelf: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 3, maxLength: 3 }),
      areAlike: fc.boolean(),
      perJournal: fc.integer({ min: 0, max: 60 }),
      setUp: fc.integer({ min: 0, max: 90 }),
      cleanUp: fc.integer({ min: 0, max: 40 }),
      hardened: fc.option(fc.integer({ min: 50, max: 400 })),
    });
    let [plans, none, apart] = [0, 0, 0];
    fc.assert(
      fc.property(question, ({ journals, prices, shelf, hardened, cleanUp, ...rest }) => {
        const whole = asked({
          ...rest,
          cleanUp: um(cleanUp),
          hardened: hardened === null ? null : um(hardened),
          journals: journals.map(({ at, wide, isOutOfShape }, nth) =>
            journal(`M${nth + 1}`, at, at + wide, isOutOfShape),
          ),
          sizes: SIZES.map((one, nth) => ({ ...one, price: prices[nth] ?? null, onShelf: shelf[nth]! })),
        });
        const { best, alternatives, refused } = grindingPlan(whole);
        const least = cheapest(whole);
        expect(best?.cost ?? Number.POSITIVE_INFINITY).toBe(least);
        if (best === null) none += 1;
        else {
          plans += 1;
          expect(best.cost).toBe(best.grinding + best.shells);
          for (const other of alternatives) expect(other.cost).toBeGreaterThanOrEqual(best.cost);
          if (new Set(best.journals.map((one) => one.size)).size > 1) apart += 1;
        }
        // Each size is a plan for all journals, or says why not.
        const uniform = [best, ...alternatives].filter(
          (plan) => plan && new Set(plan.journals.map((one) => one.size)).size === 1,
        );
        const listed = new Set([...uniform.map((plan) => plan!.journals[0]!.size), ...refused.map((one) => one.size)]);
        expect(listed.size).toBe(SIZES.length);
      }),
      { numRuns: 1500, seed: 41 },
    );
    // All that is tested did come up.
    expect(Math.min(plans, none, apart)).toBeGreaterThan(20);
  });

  it('leaves a good shaft alone', () => {
    const { best } = grindingPlan(asked({ journals: [journal('M1', 59_985), journal('M2', 59_984)] }));
    expect(best).toMatchObject({ grinding: 0, shells: 60, journals: [{ isGround: false }, { isGround: false }] });
  });

  it('grinds all alike where the maker asks for it, and one alone where it is allowed', () => {
    const journals = [journal('M1', 59_985), journal('M2', 59_960), journal('M3', 59_986)];
    const alike = grindingPlan(asked({ journals })).best!;
    // By hand: three journals, one set-up, three pairs.
    expect([alike.cost, alike.journals.map((one) => one.size)]).toEqual([
      3 * 20 + 50 + 3 * 30,
      ['0.25', '0.25', '0.25'],
    ]);
    const apart = grindingPlan(asked({ journals, areAlike: false })).best!;
    expect([apart.cost, apart.journals.map((one) => one.size)]).toEqual([20 + 50 + 3 * 30, ['', '0.25', '']]);
  });

  it('says of each size why it cannot be: too small, through the hardened layer, no shells', () => {
    const journals = [journal('M1', 59_985), journal('M2', 59_720)];
    const { best, refused } = grindingPlan(
      asked({ journals, hardened: um(200), sizes: [SIZES[0]!, SIZES[1]!, SIZES[2]!, size('0.20', 200, null, 1)] }),
    );
    expect(best).toBeNull();
    expect(refused).toEqual([
      { size: '', journals: [{ id: 'M2', why: { kind: 'too-small', by: um(276) } }], shortOf: 0 },
      { size: '0.25', journals: [{ id: 'M2', why: { kind: 'too-small', by: um(26) } }], shortOf: 0 },
      {
        size: '0.50',
        journals: [
          { id: 'M1', why: { kind: 'through-hardened', by: um(50) } },
          { id: 'M2', why: { kind: 'through-hardened', by: um(50) } },
        ],
        shortOf: 0,
      },
      { size: '0.20', journals: [{ id: 'M2', why: { kind: 'too-small', by: um(76) } }], shortOf: 0 },
    ]);
    const short = grindingPlan(asked({ journals: [journal('M1', 59_985)], sizes: [size('', 0, null, 0)] }));
    expect(short.refused).toEqual([{ size: '', journals: [], shortOf: 1 }]);
  });

  it('takes shells that are on the shelf before it buys any', () => {
    const journals = [journal('M1', 59_960), journal('M2', 59_962)];
    const sizes = [SIZES[0]!, size('0.25', 250, 30, 0), size('0.50', 500, 30, 2)];
    const { best } = grindingPlan(asked({ journals, sizes }));
    expect(best).toMatchObject({ shells: 0, toBuy: [], journals: [{ size: '0.50' }, { size: '0.50' }] });
  });

  it('of thirteen journals that may differ among eight sizes is found at once', () => {
    const sizes = Array.from({ length: 8 }, (_, at) => size(String(at), at * 125, 20 + at, at % 3));
    const journals = Array.from({ length: 13 }, (_, at) => journal(`M${at + 1}`, 59_985 - 60 * at));
    expect(grindingPlan(asked({ journals, sizes, areAlike: false })).best).not.toBeNull();
  });
});

describe('the journals of an engine', () => {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const limit = { low: um(59_976), high: um(59_994), source: 'book, p. 4' };
  const under = derivedUndersize('0.25', um(250), limit, []);
  const type = newEngineType('Rush Twin', 'mm', usual.layout);
  const sheet = {
    ...type,
    limits: { ...type.limits, mainJournal: limit },
    main: { ...type.main, series: 'Osier', undersizes: [under] },
  };
  const job = jobOfType('Rush Twin · 1', sheet, { type: '00000000-0000-4000-8000-0000000000aa', revision: 1 }, false);
  const read = (station: number, size: number): Reading => ({
    id: `00000000-0000-4000-8000-${String(station).padStart(12, '0')}`,
    feature: 'mainJournal',
    station,
    slot: 'front-0',
    text: 'x',
    unit: 'mm',
    setting: null,
    nm: um(size),
    replaces: null,
    by: 'Wren',
    at: '2026-01-02T03:04:05.000Z',
  });
  const line = (half: 'upper' | 'lower', onHand: number, price: number | null, undersize?: string): DrawerLine => ({
    id: `${half} ${undersize}`,
    version: 1,
    half: drawerHalfSchema.parse({
      family: 'main',
      series: 'Osier',
      grade: 'Teal',
      half,
      wall: um(2_000),
      onHand,
      price,
      ...(undersize === undefined ? {} : { undersize }),
    }),
    used: 0,
    fittedHere: 0,
    reservations: [],
  });

  it('stand with the sizes of their data sheet, and with what the shelf holds of each', () => {
    const drawer = [line('upper', 4, 9, '0.25'), line('lower', 3, 8, '0.25'), line('upper', 2, null)];
    const found = journalsToPlan(job, [read(1, 59_985), read(2, 59_960)], 'main', drawer);
    expect(found).toEqual({
      journals: [journal('M1', 59_985), journal('M2', 59_960)],
      unread: ['M3'],
      sizes: [
        { name: '', low: limit.low, high: limit.high, onShelf: 0, price: null },
        { name: '0.25', low: under.journal.low, high: under.journal.high, onShelf: 3, price: 18 },
      ],
    });
    expect(journalsToPlan({ ...job, limits: { ...job.limits, mainJournal: null } }, [], 'main', []).sizes).toEqual([]);
  });
});
