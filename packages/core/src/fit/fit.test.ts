import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { explainConflicts } from './explain/explainConflicts.js';
import { fitPlanSchema } from './format/fitPlan.js';
import { type FitRequestInput, fitRequestSchema, readFitRequest } from './format/fitRequest.js';
import { problemOfRequest } from './format/problemOfRequest.js';
import { leastChoice } from './joint/leastChoice.js';
import { choicesOf } from './model/choice.js';
import { fitModelOf } from './model/fitModel.js';
import { stationOptions } from './model/stationOptions.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';
import { loadIntegerSolver } from './search/loadIntegerSolver.js';
import { leastCostByHighs } from './testing/milp.js';
import { gradedEngine, manyEngines, randomRequest, requestInEitherUnit, shortDrawer } from './testing/randomRequest.js';

const solver = await loadIntegerSolver();
const read = (input: FitRequestInput) => fitRequestSchema.parse(input);

/** Mains of one engine whose gap over two walls is given in ten-thousandths of an inch. */
function mainsByGap(
  clearances: readonly number[],
  stock: Record<'std' | 'thin' | 'thick', number>,
  aim: number,
): FitRequestInput {
  const wall = { std: 0.1, thin: 0.0995, thick: 0.1005 };
  return {
    format: 'fettle.fit-request/1',
    unit: 'in',
    stations: clearances.map((_, at) => ({
      id: `M${at + 1}`,
      family: 'main',
      journal: 2.5,
      aim: aim / 1e4,
      low: 0,
      high: 0.01,
    })),
    housings: clearances.map((clearance, at) => ({
      id: `B${at + 1}`,
      family: 'main',
      bore: Number((2.7 + clearance / 1e4).toFixed(4)),
      station: `M${at + 1}`,
    })),
    shells: (['std', 'thin', 'thick'] as const).map((id) => ({
      id,
      family: 'main',
      series: 'A',
      half: 'either',
      wall: wall[id],
      stock: stock[id],
    })),
    rules: { maxWallStep: 0.001, mixedPenalty: 0, tightWeight: 1 },
  };
}

describe('fit against a second method', () => {
  it('agrees with HiGHS on status and least cost for seeded random requests that touch every rule', async () => {
    let feasible = 0;
    for (let seed = 1; seed <= 2000; seed += 1) {
      const request = read(requestInEitherUnit(seed));
      const plan = planRequest(request, { explain: false });
      const least = await leastCostByHighs(request);
      expect(plan.status, `seed ${seed}`).toBe(least === null ? 'infeasible' : 'optimal');
      expect(recheckPlan(request, plan), `seed ${seed}`).toEqual([]);
      fitPlanSchema.parse(plan);
      if (least !== null) {
        feasible += 1;
        expect(plan.cost!, `seed ${seed}`).toBeCloseTo(least, 5);
      }
    }
    expect(feasible).toBeGreaterThan(500);
    expect(feasible).toBeLessThan(1900);
  }, 120_000);

  it('agrees with HiGHS on drawers of a few halves a grade, infeasible ones mostly, with and without its help', async () => {
    let short = 0;
    for (let seed = 1; seed <= 40; seed += 1) {
      const request = shortDrawer(seed, 6 + (seed % 3), 2 + (seed % 2), 3 + (seed % 2));
      const least = await leastCostByHighs(request);
      if (least === null) short += 1;
      for (const limits of [{ solver }, {}]) {
        const plan = planRequest(request, { ...limits, explain: false });
        expect(plan.status, `seed ${seed}`).toBe(least === null ? 'infeasible' : 'optimal');
        if (least !== null) expect(plan.cost!, `seed ${seed}`).toBeCloseTo(least, 5);
      }
    }
    expect(short).toBeGreaterThan(15);
    expect(short).toBeLessThan(40);
  }, 120_000);

  it('says how well a clearance is known exactly where a size has a band, and chooses as without bands', () => {
    let known = 0;
    for (let seed = 1; seed <= 400; seed += 1) {
      const request = read(randomRequest(seed));
      const plan = planRequest(request);
      const without = read({
        ...request,
        stations: request.stations.map(({ journalBand: _, ...station }) => station),
        housings: request.housings.map(({ boreBand: _, ...housing }) => housing),
        shells: request.shells.map(({ wallBand: _, ...shell }) => shell),
      });
      expect(planRequest(without).cost, `seed ${seed}`).toBe(plan.cost);
      for (const station of plan.stations) {
        const asked = request.stations.find(({ id }) => id === station.id)!;
        const housing = request.housings.find(({ id }) => id === station.housing)!;
        const halves = [station.upper, station.lower].map((id) => request.shells.find((shell) => shell.id === id)!);
        const widths = [asked.journalBand, housing.boreBand, ...halves.map(({ wallBand }) => wallBand)].map((band) =>
          band ? band.high - band.low : 0,
        );
        const isBanded = [asked.journalBand, housing.boreBand, ...halves.map(({ wallBand }) => wallBand)].some(Boolean);
        expect(station.known !== undefined, `seed ${seed} ${station.id}`).toBe(isBanded);
        if (!station.known) continue;
        known += 1;
        const width = widths.reduce((sum, one) => sum + one, 0);
        expect(station.known.loosest - station.known.tightest).toBeCloseTo(width, 9);
        const isSure = station.known.tightest >= asked.low && station.known.loosest <= asked.high;
        expect(station.known.inside === 1, `seed ${seed} ${station.id}`).toBe(isSure);
      }
    }
    expect(known).toBeGreaterThan(150);
  });

  it('agrees with exhaustive choice on small problems with shared resources', () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const random = seeded(seed);
      const options = Array.from({ length: 4 }, () =>
        Array.from({ length: 4 }, () => ({
          cost: Math.floor(random() * 40),
          deviation: Math.floor(random() * 10),
          uses: [Math.floor(random() * 3), 3 + Math.floor(random() * 3), -1] as const,
        })),
      );
      const problem = {
        ...choicesOf(options),
        capacity: Float64Array.of(1, 2, 1, 1, 1, 3),
        group: Int32Array.of(0, 0, 0, 1),
        spread: Float64Array.of(seed % 2 ? 5 : Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY),
      };
      let least = Number.POSITIVE_INFINITY;
      for (let code = 0; code < 4 ** 4; code += 1) {
        const picks = options.map((list, at) => list[(code >> (2 * at)) & 3]!);
        const within = problem.capacity.every(
          (capacity, r) => picks.flatMap((pick) => pick.uses).filter((use) => use === r).length <= capacity,
        );
        const deviations = picks.slice(0, 3).map((pick) => pick.deviation);
        const even = Math.max(...deviations) - Math.min(...deviations) <= problem.spread[0]!;
        if (within && even)
          least = Math.min(
            least,
            picks.reduce((sum, pick) => sum + pick.cost, 0),
          );
      }
      const answer = leastChoice(problem);
      expect(answer.status === 'optimal' ? answer.cost : Number.POSITIVE_INFINITY, `seed ${seed}`).toBe(least);
    }
  });
});

describe('fit on worked selections', () => {
  // Constructed selections under stock, each position with two halves; deviations from the target summed.
  it('reaches the enumerated optimum of a selection under stock', () => {
    const plan = planRequest(read(mainsByGap([24, 29, 21, 26, 18], { std: 10, thin: 3, thick: 2 }, 25)));
    const tenths = plan.stations.map((station) => Math.round(station.clearance * 1e4));
    // Least squares over all allowed combinations: 1² + 1² + 1² + 1² + 2² = 8 (0.0001 in)².
    expect(plan.status).toBe('optimal');
    expect(tenths).toEqual([24, 24, 26, 26, 23]);
    expect(plan.cost! / 2.54 ** 2).toBeCloseTo(8, 9);
  });

  // Linear sum assignment, worked example of the scipy documentation (linear_sum_assignment): cost 5, columns 1, 0, 2.
  it('solves the published assignment example with housings as columns', () => {
    const costs = [
      [4, 1, 3],
      [2, 0, 5],
      [3, 2, 2],
    ];
    const options = costs.map((row) =>
      row.map((cost, column) => ({ cost, deviation: 0, uses: [-1, -1, column] as const })),
    );
    const answer = leastChoice({
      ...choicesOf(options),
      capacity: Float64Array.of(1, 1, 1),
      group: Int32Array.of(0, 0, 0),
      spread: Float64Array.of(Number.POSITIVE_INFINITY),
    });
    expect(answer).toMatchObject({ status: 'optimal', cost: 5 });
  });

  it('uses the example of the format page', () => {
    const request: FitRequestInput = {
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [
        { id: 'M1', engine: 'E1', family: 'main', journal: 59.981, aim: 0.04, low: 0.025, high: 0.06, offset: 0 },
      ],
      housings: [{ id: 'B1', engine: 'E1', family: 'main', bore: 64.012, station: 'M1' }],
      shells: [
        { id: 'mu-teal', family: 'main', series: 'A', half: 'upper', wall: 1.992, stock: 6, price: 4.5 },
        { id: 'ml-plum', family: 'main', series: 'A', half: 'lower', wall: 1.998, stock: 6 },
      ],
    };
    const plan = planRequest(read(request));
    // By hand: 64.012 − 59.981 − 1.992 − 1.998 = 0.041; 1² + mixed penalty 4 = 5.
    expect(plan.stations).toEqual([
      { id: 'M1', housing: 'B1', upper: 'mu-teal', lower: 'ml-plum', clearance: 0.041, deviation: 0.001, mixed: true },
    ]);
    expect(plan).toMatchObject({
      status: 'optimal',
      cost: 5,
      bound: 5,
      spread: [{ engine: 'E1', family: 'main', value: 0 }],
    });
  });
});

describe('a search that is stopped', () => {
  it('answers with an allowed plan and an honest bound, and proves what it proved anyway', () => {
    const seen = new Set<string>();
    const requests = [
      ...Array.from({ length: 150 }, (_, at) => read(randomRequest(at + 1))),
      ...Array.from({ length: 30 }, (_, at) => gradedEngine(at + 1, 7, 8, 6)),
    ];
    for (const [seed, request] of requests.entries()) {
      const whole = planRequest(request);
      const stopped = planRequest(request, { isStopped: () => true });
      expect(recheckPlan(request, stopped), `seed ${seed}`).toEqual([]);
      seen.add(stopped.status);
      if (whole.status === 'infeasible') {
        expect(['infeasible', 'stopped'], `seed ${seed}`).toContain(stopped.status);
        continue;
      }
      expect(stopped.bound!, `seed ${seed}`).toBeLessThanOrEqual(whole.cost!);
      if (stopped.status === 'stopped') {
        expect(stopped, `seed ${seed}`).toMatchObject({ cost: null, stations: [], conflicts: [] });
        continue;
      }
      expect(stopped.cost!, `seed ${seed}`).toBeGreaterThanOrEqual(whole.cost!);
      if (stopped.status === 'optimal') expect(stopped.cost, `seed ${seed}`).toBe(whole.cost);
    }
    expect([...seen].sort()).toEqual(['feasible', 'infeasible', 'optimal', 'stopped']);
  });
});

describe('the caller’s limit', () => {
  const hard = Array.from({ length: 6 }, (_, at) => shortDrawer(at + 1, 8, 2, 4));

  it('holds before there is a plan, in prices and in explanations', () => {
    for (const request of hard) {
      for (const ms of [0, 5, 40]) {
        let looks = 0;
        // A clock of its own: each look at it is a tenth of a millisecond.
        const clock = () => {
          looks += 1;
          return looks / 10;
        };
        const plan = planRequest(request, { solver, clock, until: ms, prices: true });
        expect(clock()).toBeLessThan(ms + 10);
        expect(recheckPlan(request, plan)).toEqual([]);
      }
    }
  });

  it('is told to the integer solver, which ends at its next step', () => {
    const request = manyEngines(5, 12, { slack: 1, freeRods: true, maxSpread: { main: 0.008, rod: 0.008 } });
    let asked = 0;
    const plan = planRequest(request, { solver, isStopped: () => ++asked > 50, explain: false });
    expect(['stopped', 'feasible']).toContain(plan.status);
    // From then on it is asked only on the way out.
    expect(asked).toBeGreaterThan(50);
    expect(asked).toBeLessThan(70);
    expect(recheckPlan(request, plan)).toEqual([]);
  });

  it('leaves an explanation that says where it is not minimal', () => {
    let [doubtful, minimalOnes] = [0, 0];
    for (const request of hard) {
      const plan = planRequest(request, { solver });
      if (plan.status !== 'infeasible') continue;
      const problem = problemOfRequest(request);
      const model = fitModelOf(problem);
      // One clock runs out after a few looks at it, once the plan was found not to exist; the other stands still.
      for (const step of [100, 0]) {
        let looks = 0;
        const clock = () => {
          looks += 1;
          return step * looks;
        };
        const conflicts = explainConflicts(problem, model, stationOptions(model), { solver, clock });
        expect(conflicts.length).toBeGreaterThan(0);
        for (const { message, minimal } of conflicts) {
          if (minimal === false) {
            doubtful += 1;
            expect(message).toContain('not shown to be the smallest');
          } else {
            minimalOnes += 1;
            expect(message).not.toContain('not shown');
          }
        }
      }
    }
    expect(doubtful).toBeGreaterThan(0);
    expect(minimalOnes).toBeGreaterThan(0);
  });
});

describe('fit invariants', () => {
  const seeds = fc.integer({ min: 1000, max: 1_000_000 });

  it('never costs more with more stock', () => {
    let compared = 0;
    fc.assert(
      fc.property(seeds, fc.nat(20), (seed, pick) => {
        const input = randomRequest(seed);
        const before = planRequest(read(input));
        const shells = input.shells.map((shell, at) =>
          at === pick % input.shells.length && shell.stock != null ? { ...shell, stock: shell.stock + 1 } : shell,
        );
        const after = planRequest(read({ ...input, shells }));
        if (before.status === 'infeasible') return;
        compared += 1;
        expect(after.status).toBe('optimal');
        expect(after.cost!).toBeLessThanOrEqual(before.cost!);
      }),
      { numRuns: 150, seed: 7 },
    );
    expect(compared).toBeGreaterThan(30);
  });

  it('does not depend on the order of the request', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const input = randomRequest(seed);
        const turned = {
          ...input,
          stations: input.stations.toReversed(),
          housings: input.housings.toReversed(),
          shells: input.shells.toReversed(),
        };
        const [one, other] = [planRequest(read(input)), planRequest(read(turned))];
        expect(other.status).toBe(one.status);
        expect(other.cost).toBe(one.cost);
      }),
      { numRuns: 150, seed: 11 },
    );
  });

  it('gives the same plan for the same request', () => {
    const request = read(randomRequest(42));
    expect(planRequest(request)).toEqual(planRequest(request));
  });
});

describe('conflicts', () => {
  it('says how far the nearest pair is and which walls would do', () => {
    const plan = planRequest(read(mainsByGap([24, 200], { std: 10, thin: 2, thick: 2 }, 25)));
    expect(plan.status).toBe('infeasible');
    expect(plan.conflicts).toMatchObject([
      {
        kind: 'no-pair-in-range',
        stations: ['M2'],
        shells: ['thick'],
        message:
          'M2: the nearest pair, thick over thick, gives 0.0190 in, 0.0090 in too loose (limits 0.0000 in to 0.0100 in).',
        remedy: 'Walls that sum to 0.2100 in to 0.2200 in would do.',
      },
    ]);
  });

  it('names a minimal group that competes for too few halves, and the fewest to get', () => {
    const plan = planRequest(read(mainsByGap([20, 20, 20], { std: 4, thin: 0, thick: 0 }, 25)));
    expect(plan.conflicts).toHaveLength(1);
    expect(plan.conflicts[0]).toMatchObject({ kind: 'stock-short', stations: ['M1', 'M2', 'M3'], shells: ['std'] });
    expect(plan.conflicts[0]!.message).toContain('2 are missing (2 × std)');
  });

  it('finds the least spread that would do', () => {
    const every = mainsByGap([20, 35], { std: 4, thin: 0, thick: 0 }, 25);
    const input = { ...every, shells: every.shells.filter(({ id }) => id === 'std') };
    const plan = planRequest(read({ ...input, rules: { ...input.rules, maxSpread: { main: 0.001 } } }));
    expect(plan.conflicts[0]).toMatchObject({ kind: 'spread', stations: ['M1', 'M2'] });
    expect(plan.conflicts[0]!.remedy).toBe('A spread limit of 0.0015 in would work with the shells on hand.');
    const wider = planRequest(read({ ...input, rules: { ...input.rules, maxSpread: { main: 0.0015 } } }));
    expect(wider.status).toBe('optimal');
  });

  it('tells a rule that keeps a pair out from a missing wall', () => {
    const input = mainsByGap([25], { std: 1, thin: 1, thick: 0 }, 25);
    const plan = planRequest(read({ ...input, rules: { mixedHalves: false } }));
    expect(plan.conflicts[0]!.kind).toBe('stock-short');
    const split = {
      ...input,
      shells: input.shells.map((shell) => ({
        ...shell,
        half: shell.id === 'std' ? ('upper' as const) : ('lower' as const),
      })),
    };
    expect(planRequest(read({ ...split, rules: { mixedHalves: false } })).conflicts[0]!.kind).toBe('rules');
  });

  it('reports rods that cannot be matched', () => {
    const base = mainsByGap([25, 25], { std: 8, thin: 0, thick: 0 }, 25);
    const plan = planRequest(read({ ...base, housings: [{ ...base.housings[0]!, station: null }] }));
    expect(plan.conflicts[0]).toMatchObject({ kind: 'matching', stations: ['M1', 'M2'] });
  });
});

describe('reading a request', () => {
  const pathsOf = (json: unknown) => {
    const result = readFitRequest(json);
    return result.ok ? [] : result.faults.map((fault) => fault.path);
  };

  it('fills in the defaults of the format', () => {
    const request = read({ format: 'fettle.fit-request/1', unit: 'mm', stations: [], housings: [], shells: [] });
    expect(request.rules).toEqual({
      mixedHalves: true,
      acrossSeries: false,
      thinnerHalf: 'either',
      maxSpread: { main: null, rod: null },
      tightWeight: 2,
      mixedPenalty: 4,
      pricePenalty: 0,
    });
    expect(planRequest(request)).toMatchObject({ status: 'optimal', cost: 0, stations: [] });
  });

  it('names the path of every fault', () => {
    const good = mainsByGap([25, 25], { std: 8, thin: 0, thick: 0 }, 25);
    expect(pathsOf(null)).toEqual(['']);
    expect(pathsOf({ ...good, unit: 'cm' })).toEqual(['/unit']);
    expect(pathsOf({ ...good, shells: [{ ...good.shells[0], stock: -1 }] })).toEqual(['/shells/0/stock']);
    expect(pathsOf({ ...good, housings: [{ ...good.housings[0], station: 'M9' }] })).toEqual(['/housings/0/station']);
    expect(pathsOf({ ...good, stations: [good.stations[0], good.stations[0]] })).toContain('/stations/1/id');
    expect(pathsOf({ ...good, stations: [{ ...good.stations[0], low: 1 }, good.stations[1]] })).toEqual([
      '/stations/0/low',
    ]);
    expect(pathsOf({ ...good, rules: { maxSpred: 1 } })).toEqual(['/rules']);
  });
});
