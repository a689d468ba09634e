import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { FitPlan } from './format/fitPlan.js';
import { type FitRequest, fitRequestSchema } from './format/fitRequest.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';
import { inInches, randomRequest } from './testing/randomRequest.js';

const request: FitRequest = fitRequestSchema.parse({
  format: 'fettle.fit-request/1',
  unit: 'mm',
  stations: [1, 2].map((number) => ({
    id: `M${number}`,
    family: 'main',
    journal: 59.981,
    aim: 0.04,
    low: 0.03,
    high: 0.05,
  })),
  housings: [
    { id: 'B1', family: 'main', bore: 64.012, station: 'M1' },
    { id: 'B2', family: 'main', bore: 64.012, station: 'M2' },
    { id: 'B3', family: 'rod', bore: 64.012, station: null },
  ],
  shells: [
    { id: 'up', family: 'main', series: 'A', half: 'upper', wall: 1.994, stock: 2 },
    { id: 'low', family: 'main', series: 'A', half: 'lower', wall: 1.997, stock: 2 },
    { id: 'other', family: 'main', series: 'B', half: 'lower', wall: 1.997, stock: null },
    { id: 'far', family: 'main', series: 'A', half: 'lower', wall: 2.02, stock: 1 },
  ],
  rules: { maxSpread: { main: 0.001, rod: null } },
});
const plan = planRequest(request);

/** The plan with its first station changed. */
function withFirst(change: Partial<FitPlan['stations'][number]>): FitPlan {
  return { ...plan, stations: plan.stations.map((station, at) => (at === 0 ? { ...station, ...change } : station)) };
}

describe('re-checking a plan', () => {
  it('finds nothing wrong with a right one', () => {
    expect(plan.status).toBe('optimal');
    expect(recheckPlan(request, plan)).toEqual([]);
  });

  const wrong: [string, FitPlan, string][] = [
    ['a station left out', { ...plan, stations: plan.stations.slice(1) }, 'M1 lacks a housing or a shell'],
    ['a station planned twice', { ...plan, stations: [...plan.stations, plan.stations[0]!] }, 'planned twice'],
    ['a station that was not required', withFirst({ id: 'M9' }), 'M9 is not in the request'],
    ['a housing of another station', withFirst({ housing: 'B2' }), 'B2 belongs to M2'],
    ['a housing of the other family', withFirst({ housing: 'B3' }), 'B3 is not for M1'],
    ['a lower half on the upper side', withFirst({ upper: 'low' }), 'breaks the side rule'],
    ['another series', withFirst({ lower: 'other' }), 'breaks the series rule'],
    ['too large a wall step', withFirst({ lower: 'far' }), 'breaks the step rule'],
    ['a clearance outside its limits', withFirst({ lower: 'far' }), 'M1 is outside its limits'],
    ['a wrong clearance', withFirst({ clearance: 0.0401 }), 'M1 states a wrong clearance'],
    ['a wrong deviation', withFirst({ deviation: 0.001 }), 'M1 states a wrong deviation'],
    ['mixed stated wrongly', withFirst({ mixed: false }), 'M1 states mixed wrongly'],
    [
      'a clearance beyond what its bands allow',
      withFirst({ known: { tightest: 0.05, loosest: 0.06, inside: 1 } }),
      'M1 states a clearance outside what its bands allow',
    ],
    ['a wrong count of shells', { ...plan, shellsUsed: [] }, 'up is counted wrongly'],
    ['a wrong cost', { ...plan, cost: 1 }, 'the stated cost does not add up'],
    [
      'stations in a plan that has none',
      { ...plan, status: 'infeasible' },
      'a plan that is infeasible has no stations',
    ],
  ];
  it.each(wrong)('finds %s', (_, broken, fault) => {
    expect(recheckPlan(request, broken).join('; ')).toContain(fault);
  });

  it('finds a drawer that is short and a shaft that is uneven', () => {
    const short = {
      ...request,
      shells: request.shells.map((shell) => (shell.id === 'up' ? { ...shell, stock: 1 } : shell)),
    };
    expect(recheckPlan(short, plan).join()).toContain('up is used 2 times with 1 on hand');
    const uneven = {
      ...request,
      stations: request.stations.map((station, at) => ({ ...station, aim: 0.04 + at * 0.002 })),
    };
    expect(recheckPlan(uneven, plan).join()).toContain('main spreads too far');
  });
});

describe('one request in two units', () => {
  it('gives the same choice, cost, status and chances', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const inMillimetres = randomRequest(seed);
        const other = inInches(inMillimetres);
        const [one, two] = [
          planRequest(fitRequestSchema.parse(inMillimetres)),
          planRequest(fitRequestSchema.parse(other)),
        ];
        expect(two.status).toBe(one.status);
        expect(two.cost).toBe(one.cost);
        const halves = ({ stations }: FitPlan) =>
          stations.map(({ id, housing, upper, lower, known }) => [id, housing, upper, lower, known?.inside]);
        expect(halves(two)).toEqual(halves(one));
      }),
      { numRuns: 200, seed: 5 },
    );
  });
});
