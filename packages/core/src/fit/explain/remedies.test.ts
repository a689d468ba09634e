import { describe, expect, it } from 'vitest';
import type { FitConflict } from '../format/fitPlan.js';
import { type FitRequest, type FitRequestInput, fitRequestSchema } from '../format/fitRequest.js';
import { planRequest } from '../planRequest.js';
import { leastCostByHighs } from '../testing/milp.js';
import { requestInEitherUnit } from '../testing/randomRequest.js';
import { remedied } from '../testing/remedied.js';

type Shell = FitRequestInput['shells'][number];

function requestOf(
  part: Pick<FitRequestInput, 'stations' | 'housings' | 'shells'> & Partial<FitRequestInput>,
): FitRequest {
  return fitRequestSchema.parse({ format: 'fettle.fit-request/1', unit: 'mm', ...part });
}

function conflictsOf(request: FitRequest): FitConflict[] {
  const plan = planRequest(request);
  expect(plan.status).toBe('infeasible');
  return plan.conflicts;
}

const main = (id: string, half: Shell['half'], wall: number, more: Partial<Shell> = {}): Shell => ({
  id,
  family: 'main',
  series: 'A',
  half,
  wall,
  stock: 1,
  ...more,
});

describe('remedies that did not help', () => {
  it('at seeded stations of every optional field each remedy helps, by HiGHS', async () => {
    const fields = new Map<string, number>();
    let tried = 0;
    for (let seed = 20_001; seed <= 21_200; seed += 1) {
      const request = fitRequestSchema.parse(requestInEitherUnit(seed));
      const plan = planRequest(request);
      if (plan.status !== 'infeasible') continue;
      const remedies = plan.conflicts.flatMap((conflict) => conflict.remedies ?? []);
      if (remedies.length === 0) continue;
      const has: Record<string, boolean> = {
        placed: request.stations.some(({ position }) => position !== ''),
        undersized: request.shells.some(({ undersize }) => undersize !== ''),
        flanged: request.stations.some(({ endPlay }) => endPlay !== undefined),
        scatter: request.stations.some(({ journalReadings }) => journalReadings !== undefined),
        free: request.housings.some(({ station }) => station === null),
        spread: request.rules.maxSpread.main !== null,
        offsets: request.stations.some(({ offsets }) => offsets.length > 0),
      };
      for (const [field, is] of Object.entries(has)) if (is) fields.set(field, (fields.get(field) ?? 0) + 1);
      for (const remedy of remedies) {
        tried += 1;
        const cost = await leastCostByHighs(fitRequestSchema.parse(remedied(request, remedy)));
        expect(cost, `seed ${seed}: ${remedy.message}`).not.toBeNull();
      }
    }
    expect(tried).toBeGreaterThan(300);
    for (const field of ['placed', 'undersized', 'flanged', 'scatter', 'free', 'spread', 'offsets'])
      expect(fields.get(field), field).toBeGreaterThan(8);
  }, 240_000);

  it('a flange that does not fit is named, and no wall, regrind or clearance limit is offered for it', () => {
    const request = requestOf({
      stations: [
        {
          id: 'M3',
          family: 'main',
          journal: 50,
          low: 0.025,
          high: 0.045,
          aim: 0.035,
          endPlay: { reading: 0.2, fitted: 25, low: 0.1, high: 0.25, aim: 0.17 },
        },
      ],
      housings: [{ id: 'B3', family: 'main', bore: 54.035, station: 'M3' }],
      shells: [main('fu', 'upper', 2.002, { width: 25.3 }), main('l', 'lower', 2.014)],
    });
    const [conflict] = conflictsOf(request);
    // By hand: 0.2 + 25 − 25.3 = −0.1; 25.2 − 0.25 and 25.2 − 0.1.
    expect(conflict!.message).toContain('gives −0.100 mm');
    expect(conflict!.remedy).toContain('24.950 mm to 25.100 mm over its flanges');
    for (const remedy of conflict!.remedies!) {
      expect(remedy.kind).toBe('wall');
      expect(remedy.newShells!.some(({ width }) => width !== undefined && width >= 24.95 && width <= 25.1)).toBe(true);
    }
    expect(conflict!.remedies).toHaveLength(1);
  });

  it('a limit is not moved below zero or far beyond its range, and a standard wall is not sold as an undersize', () => {
    const request = requestOf({
      stations: [{ id: 'M1', family: 'main', journal: 50, aim: 0.038, low: 0.028, high: 0.048 }],
      housings: [{ id: 'B1', family: 'main', bore: 54.038, station: 'M1' }],
      shells: [main('u', 'upper', 2.125, { undersize: '0.25' }), main('l', 'lower', 2.125, { undersize: '0.25' })],
    });
    const remedies = conflictsOf(request)[0]!.remedies!;
    expect(remedies.map(({ kind }) => kind)).toEqual(['wall', 'regrind']);
    expect(remedies[0]!.newShells).toMatchObject([
      { wall: 2, undersize: '' },
      { wall: 2, undersize: '' },
    ]);
    // By hand: 54.04 − 50 − 2 · 2 = 0.04, 0.008 above a high limit of 0.032: more than half of the range of 0.01.
    const loose = requestOf({
      stations: [{ id: 'M1', family: 'main', journal: 50, aim: 0.026, low: 0.022, high: 0.032 }],
      housings: [{ id: 'B1', family: 'main', bore: 54.04, station: 'M1' }],
      shells: [main('u', 'upper', 2), main('l', 'lower', 2)],
    });
    const limits = (limitShare?: number) =>
      conflictsOf({
        ...loose,
        rules: { ...loose.rules, ...(limitShare === undefined ? {} : { limitShare }) },
      })[0]!.remedies!.filter(({ kind }) => kind === 'limit');
    expect(limits()).toEqual([]);
    expect(limits(0.8)).toMatchObject([{ limit: { side: 'high', value: 0.04 } }]);
  });

  it('“matching” is not said where halves are short', () => {
    const rod = (id: string, journal: number) => ({
      id,
      family: 'rod' as const,
      journal,
      aim: 0.035,
      low: 0.03,
      high: 0.04,
    });
    const pins = { stations: [rod('P1', 48), rod('P2', 48)] };
    const housings = [
      { id: 'R1', family: 'rod' as const, bore: 51.035, station: null },
      { id: 'R2', family: 'rod' as const, bore: 51.055, station: null },
    ];
    const half = (id: string, side: Shell['half'], wall: number, stock: number) =>
      main(id, side, wall, { family: 'rod', stock });
    for (const shells of [
      // One “either” half is not two, and a half that is out of stock is still a half.
      [half('a', 'either', 1.5, 2), half('b', 'either', 1.51, 1)],
      [
        half('au', 'upper', 1.5, 2),
        half('al', 'lower', 1.5, 2),
        half('bu', 'upper', 1.51, 0),
        half('bl', 'lower', 1.51, 1),
      ],
    ]) {
      const [conflict] = conflictsOf(requestOf({ ...pins, housings, shells }));
      expect(conflict).toMatchObject({ kind: 'stock-short', stations: ['P1', 'P2'] });
      expect(conflict!.remedies![0]!.kind).toBe('buy');
    }
  });

  it('mains apart for want of halves are told by what to get first', () => {
    const station = (id: string) => ({ id, family: 'main' as const, journal: 60, aim: 0.035, low: 0.02, high: 0.05 });
    const request = requestOf({
      stations: [station('M1'), station('M2')],
      housings: [
        { id: 'B1', family: 'main', bore: 64.035, station: 'M1' },
        { id: 'B2', family: 'main', bore: 64.047, station: 'M2' },
      ],
      shells: [
        main('au', 'upper', 2, { stock: 9 }),
        main('al', 'lower', 2, { stock: 9 }),
        main('bu', 'upper', 2.006, { stock: 0 }),
        main('bl', 'lower', 2.006, { stock: 0 }),
      ],
      rules: { maxSpread: { main: 0.004, rod: null } },
    });
    const [conflict] = conflictsOf(request);
    expect(conflict!.kind).toBe('stock-short');
    expect(conflict!.remedy).toBe('Fewest shells to get so that everything fits: 1 × bu and 1 × bl.');
    expect(conflict!.remedies![0]!.kind).toBe('buy');
  });

  it('a change that puts one fault of several right is not offered as one that makes everything fit', () => {
    const station = (id: string) => ({ id, family: 'main' as const, journal: 60, aim: 0.035, low: 0.02, high: 0.05 });
    const request = requestOf({
      stations: [station('M1'), station('M2')],
      housings: [
        { id: 'B1', family: 'main', bore: 64.135, station: 'M1' },
        { id: 'B2', family: 'main', bore: 63.9, station: 'M2' },
      ],
      shells: [main('u', 'upper', 2, { stock: 9 }), main('l', 'lower', 2, { stock: 9 })],
    });
    for (const conflict of conflictsOf(request)) {
      for (const remedy of conflict.remedies ?? [])
        expect(planRequest(remedied(request, remedy)).status).toBe('optimal');
      for (const remedy of conflict.partRemedies ?? []) {
        const left = planRequest(remedied(request, remedy));
        expect(left.conflicts.map(({ stations }) => stations[0])).not.toContain(conflict.stations[0]);
      }
    }
  });
});

describe('explanations', () => {
  it('say what they left out where a clock ended them', () => {
    const request = Array.from({ length: 200 }, (_, at) => fitRequestSchema.parse(requestInEitherUnit(at + 1))).find(
      (one) => planRequest(one).conflicts.some(({ kind }) => kind === 'stock-short'),
    )!;
    let looks = 0;
    const clock = () => {
      looks += 1;
      return 200 * looks;
    };
    expect(planRequest(request, { clock, until: 1e9 }).conflicts[0]!.leftOut).toMatch(/^Not examined further/u);
    expect(planRequest(request).conflicts[0]!.leftOut).toBeUndefined();
  });
});
