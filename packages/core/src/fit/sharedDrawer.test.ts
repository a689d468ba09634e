import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { climb } from './joint/climb.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';
import type { FitProgress } from './search/choiceLimits.js';
import { integerSolverOf } from './search/integerSolver.js';
import { leastAssignment } from './search/leastAssignment.js';
import { highs, leastCostByHighs } from './testing/milp.js';
import { manyEngines } from './testing/randomRequest.js';

const solver = integerSolverOf(await highs());

describe('many engines on one drawer', () => {
  const drawers = [
    { name: 'fixed rods', engines: 12, how: {} },
    { name: 'free rods', engines: 10, how: { freeRods: true } },
    { name: 'fixed rods, limited spread', engines: 8, how: { slack: 1.6, maxSpread: { main: 0.008, rod: 0.01 } } },
    {
      name: 'free rods, limited spread',
      engines: 8,
      how: { slack: 1.6, freeRods: true, maxSpread: { main: null, rod: 0.008 } },
    },
    { name: 'too few halves', engines: 8, how: { slack: 0.85 } },
  ];
  it.each(drawers)(
    'agrees with HiGHS on the whole model: $name',
    async ({ engines, how }) => {
      let solved = 0;
      for (let seed = 1; seed <= 4; seed += 1) {
        const request = manyEngines(seed, engines, how);
        const plan = planRequest(request, { solver, explain: false });
        const least = await leastCostByHighs(request);
        expect(plan.status, `seed ${seed}`).toBe(least === null ? 'infeasible' : 'optimal');
        if (least !== null) expect(plan.cost!, `seed ${seed}`).toBeCloseTo(least, 5);
        expect(recheckPlan(request, plan), `seed ${seed}`).toEqual([]);
        if (least !== null) solved += 1;
      }
      if ((how.slack ?? 1) < 1) expect(solved).toBe(0);
      else expect(solved).toBeGreaterThan(0);
    },
    120_000,
  );

  it('gives the same plan again, and tells how far it has come', () => {
    const request = manyEngines(3, 30, { freeRods: true });
    const steps: FitProgress[] = [];
    const plan = planRequest(request, { solver, onProgress: (progress) => steps.push(progress) });
    expect(plan.status).toBe('optimal');
    expect(planRequest(request, { solver })).toEqual(plan);
    expect(new Set(steps.map(({ doing }) => doing))).toContain('combining');
    for (const { bound } of steps) expect(bound ?? 0).toBeLessThanOrEqual(plan.cost! + 1e-6);
  });

  it('answers with an allowed plan and an honest bound without an integer solver', () => {
    for (const freeRods of [false, true]) {
      const request = manyEngines(5, 20, { freeRods, slack: 1.1 });
      const [proven, unproven] = [planRequest(request, { solver }), planRequest(request)];
      expect(recheckPlan(request, unproven)).toEqual([]);
      expect(unproven.bound!).toBeLessThanOrEqual(proven.cost!);
      expect(unproven.cost!).toBeGreaterThanOrEqual(proven.cost!);
    }
  });

  it('prices the halves that run out', () => {
    const request = manyEngines(2, 20);
    const plan = planRequest(request, { solver });
    expect(plan.prices!.length).toBeGreaterThan(0);
    const used = new Map(plan.shellsUsed.map(({ id, count }) => [id, count]));
    for (const { id } of plan.prices!) {
      const shell = request.shells.find((one) => one.id === id)!;
      expect(used.get(id) ?? 0, id).toBeGreaterThan(shell.stock! * 0.7);
    }
  });

  it('names a group short of one kind of half, and what to get so that all fit', () => {
    const request = manyEngines(1, 20, { slack: 0.9 });
    const plan = planRequest(request, { solver });
    expect(plan.status).toBe('infeasible');
    const remedy = plan.conflicts[0]!.remedies!.find(({ kind }) => kind === 'buy')!;
    const more = new Map(remedy.shells.map(({ id, count }) => [id, count]));
    const shells = request.shells.map((shell) => ({ ...shell, stock: shell.stock! + (more.get(shell.id) ?? 0) }));
    expect(planRequest({ ...request, shells }, { solver }).status).toBe('optimal');
  });

  it('takes 300 engines with alike stations as one problem, proven', () => {
    const request = manyEngines(9, 300);
    const plan = planRequest(request, { solver });
    expect(plan.status).toBe('optimal');
    expect(plan.stations).toHaveLength(2700);
  });
});

describe('least assignment', () => {
  // scipy linear_sum_assignment: documentation example and its test cases; the last one constructed, verified by trying all.
  it.each([
    {
      cost: [
        [4, 1, 3],
        [2, 0, 5],
        [3, 2, 2],
      ],
      total: 5,
      columns: [1, 0, 2],
    },
    {
      cost: [
        [400, 150, 400],
        [400, 450, 600],
        [300, 225, 300],
      ],
      total: 850,
      columns: [1, 0, 2],
    },
    {
      cost: [
        [400, 150, 400, 1],
        [400, 450, 600, 2],
        [300, 225, 300, 3],
      ],
      total: 452,
      columns: [1, 3, 2],
    },
    {
      cost: [
        [1, 2],
        [2, 100],
      ],
      total: 4,
      columns: [1, 0],
    },
  ])('costs $total', ({ cost, total }) => {
    const found = leastAssignment(cost.flat(), cost.length, cost[0]!.length);
    expect(found.total).toBe(total);
    expect(cost.reduce((sum, row, at) => sum + row[found.columns[at]!]!, 0)).toBe(total);
  });

  it('proves itself: reduced costs are never negative and vanish where chosen', () => {
    for (let seed = 1; seed <= 200; seed += 1) {
      const random = seeded(seed);
      const [rows, columns] = [1 + Math.floor(random() * 6), 7];
      const cost = Array.from({ length: rows * columns }, () => Math.floor(random() * 50));
      const found = leastAssignment(cost, rows, columns);
      cost.forEach((value, at) => {
        const [row, column] = [Math.floor(at / columns), at % columns];
        const reduced = value - found.rowDual[row]! - found.columnDual[column]!;
        expect(reduced).toBeGreaterThanOrEqual(0);
        if (found.columns[row] === column) expect(reduced).toBe(0);
      });
      expect(new Set(found.columns).size).toBe(rows);
    }
  });

  it('says when rows cannot all be served', () => {
    const none = Number.POSITIVE_INFINITY;
    expect(leastAssignment([1, none, 2, none], 2, 2).total).toBe(none);
  });
});

describe('climbing', () => {
  it('finds the top of a concave function with kinks', () => {
    const top = [3, -2, 0.5, 7];
    let best = Number.NEGATIVE_INFINITY;
    climb(4, {
      rounds: 500,
      step: 1,
      leastStep: 1e-9,
      slopeAt: (point) => {
        const miss = point.map((value, at) => value - top[at]!);
        best = Math.max(best, -miss.reduce((sum, value, at) => sum + (at + 1) * Math.abs(value), 0));
        return miss.map((value, at) => -(at + 1) * Math.sign(value));
      },
    });
    expect(best).toBeGreaterThan(-1e-3);
  });
});
