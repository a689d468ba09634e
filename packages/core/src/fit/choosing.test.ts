import { describe, expect, it } from 'vitest';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { nanometres } from '../measure/nanometres.js';
import { alternativesAt, placementsOf } from './alternatives.js';
import { fit } from './fit.js';
import type { FitRemedy } from './format/fitPlan.js';
import { type FitRequest, fitRequestSchema, readFitRequest } from './format/fitRequest.js';
import { planOfSolution } from './format/planOfSolution.js';
import { problemOfRequest } from './format/problemOfRequest.js';
import { offTarget, planOffTarget } from './offTarget.js';
import { planRequest } from './planRequest.js';
import { halvesToOrder, planVariants } from './planVariants.js';
import { recheckPlan } from './recheckPlan.js';
import { loadIntegerSolver } from './search/loadIntegerSolver.js';
import { setSavings } from './setSavings.js';
import { fewestHalvesByHighs, leastCostByHighs } from './testing/milp.js';
import { gradedEngine, requestInEitherUnit, shortDrawer } from './testing/randomRequest.js';
import { remedied } from './testing/remedied.js';

const random = Array.from({ length: 120 }, (_, seed) => fitRequestSchema.parse(requestInEitherUnit(seed + 1)));
const solver = await loadIntegerSolver();
const wide = (seed: number): FitRequest => {
  const request = gradedEngine(seed, 3, 3, 4);
  return { ...request, shells: request.shells.map((shell) => ({ ...shell, stock: (shell.stock ?? 0) + 1 })) };
};

describe('alternatives of a station', () => {
  it('cost what HiGHS finds with that choice held, and the plan’s own choice is the cheapest', async () => {
    const compared = { impossible: 0, possible: 0 };
    for (const request of [...[1, 2, 3].map(wide), ...random.slice(0, 60)]) {
      const plan = planRequest(request);
      if (plan.cost === null) continue;
      const { wishes } = request;
      const station = request.stations.find(({ id }) => wishes.hold.every((other) => other.station !== id));
      if (!station) continue;
      const alternatives = alternativesAt(problemOfRequest(request), station.id);
      expect(alternatives[0]!.cost).toBe(plan.cost);
      for (const { housing, upper, lower, cost } of [...alternatives.slice(0, 8), ...alternatives.slice(-4)]) {
        const hold = [...wishes.hold, { station: station.id, housing, upper, lower }];
        const held = { ...request, wishes: { ...wishes, hold } };
        const least = await leastCostByHighs(held);
        compared[least === null ? 'impossible' : 'possible'] += 1;
        if (least === null) expect(cost).toBeNull();
        else expect(cost).toBeCloseTo(least, 5);
      }
    }
    expect(compared.possible).toBeGreaterThan(20);
    expect(compared.impossible).toBeGreaterThan(0);
  });

  it('place every rod on every pin, with its cost or the reason', () => {
    const request = gradedEngine(4, 0, 4, 5);
    const placements = placementsOf(problemOfRequest(request), { engine: '', family: 'rod' });
    expect(placements).toHaveLength(16);
    const plan = planRequest(request);
    for (const { cost, reason } of placements) expect(cost === null).toBe(reason !== null);
    const planned = placements.filter(
      ({ station, housing }) => plan.stations.find(({ id }) => id === station)?.housing === housing,
    );
    expect(planned.map(({ cost }) => cost)).toEqual(Array(4).fill(plan.cost));
  });
});

describe('plans side by side', () => {
  it('are allowed, and order as their names promise', () => {
    let [compared, withoutMixing, ordered] = [0, 0, 0];
    for (let seed = 1; seed <= 12; seed += 1) {
      const request = wide(seed);
      const problem = problemOfRequest(request);
      const { onHand, orderable, unmixed, evenest } = planVariants(problem);
      if (onHand.cost === null) continue;
      compared += 1;
      expect(halvesToOrder(problem, onHand)).toEqual([]);
      expect(orderable.cost!).toBeLessThanOrEqual(onHand.cost);
      if (unmixed.cost !== null) {
        withoutMixing += 1;
        expect(unmixed.cost).toBeGreaterThanOrEqual(onHand.cost);
        expect(unmixed.stations.some(({ mixed }) => mixed)).toBe(false);
      }
      expect(recheckPlan(request, planOfSolution(evenest, request.unit))).toEqual([]);
      const widest = (plan: typeof onHand) => plan.spread.find(({ family }) => family === 'main')!.value;
      expect(widest(evenest)).toBeLessThanOrEqual(widest(onHand));
      for (const { shell, count } of halvesToOrder(problem, orderable)) {
        const used = orderable.shellsUsed.find(({ id }) => id === shell.id)!.count;
        expect(count).toBe(used - shell.stock!);
        ordered += 1;
      }
    }
    expect(compared).toBeGreaterThan(4);
    expect(withoutMixing).toBeGreaterThan(0);
    expect(ordered).toBeGreaterThan(0);
  });
});

describe('what is held and forbidden', () => {
  it('names the path of a wish for something that is not there', () => {
    const [request] = random;
    const answer = readFitRequest({ ...request, wishes: { hold: [{ station: 'no such' }], forbid: [] } });
    expect(answer).toMatchObject({ ok: false, faults: [{ path: '/wishes/hold/0/station' }] });
  });

  it('that leaves nothing is said, with letting go as the remedy', () => {
    const request = wide(2);
    const [station] = request.stations;
    const forbid = request.shells.map(({ id }) => ({ station: station!.id, shell: id }));
    const plan = planRequest({ ...request, wishes: { hold: [], forbid } });
    expect(plan.status).toBe('infeasible');
    expect(plan.conflicts[0]).toMatchObject({ kind: 'rules', stations: [station!.id] });
    expect(plan.conflicts[0]!.remedies![0]).toMatchObject({ kind: 'release', stations: [station!.id] });
  });
});

describe('remedies', () => {
  const infeasible = [
    ...Array.from({ length: 500 }, (_, at) => fitRequestSchema.parse(requestInEitherUnit(at + 1))),
    ...Array.from({ length: 12 }, (_, at) => shortDrawer(at + 1, 6, 2, 3)),
  ].flatMap((request, at) => {
    const plan = planRequest(request, { solver });
    if (plan.status !== 'infeasible') return [];
    const remedies = plan.conflicts.flatMap((conflict) => conflict.remedies ?? []);
    return [{ seed: at + 1, request, remedies, conflicts: plan.conflicts }];
  });

  it('make everything fit once applied, each of every kind', () => {
    const kinds = new Map<string, number>();
    for (const { seed, request, remedies } of infeasible) {
      for (const remedy of remedies) {
        const { status } = planRequest(remedied(request, remedy), { solver, explain: false });
        expect(status, `seed ${seed}: ${remedy.message}`).toBe('optimal');
        kinds.set(remedy.kind, (kinds.get(remedy.kind) ?? 0) + 1);
      }
    }
    expect(Object.fromEntries(kinds)).toMatchObject({
      buy: expect.any(Number),
      wall: expect.any(Number),
      rule: expect.any(Number),
      release: expect.any(Number),
      'move-rod': expect.any(Number),
      regrind: expect.any(Number),
      limit: expect.any(Number),
    });
    for (const [kind, count] of kinds) expect(count, kind).toBeGreaterThan(3);
  }, 120_000);

  it('ask for the fewest halves, by HiGHS', async () => {
    let [counted, said] = [0, 0];
    for (const { seed, request, remedies, conflicts } of infeasible) {
      const bought = remedies.find(({ kind }) => kind === 'buy');
      const fewest = await fewestHalvesByHighs(request);
      const count = (list: readonly { count: number }[]) => list.reduce((sum, next) => sum + next.count, 0);
      if (bought) {
        expect(count(bought.shells), `seed ${seed}`).toBe(fewest);
        counted += 1;
      }
      for (const { remedy } of conflicts) {
        const told = /^Fewest shells to get so that everything fits: (.+)\.$/u.exec(remedy)?.[1];
        if (told === undefined) continue;
        said += 1;
        const numbers = [...told.matchAll(/(\d+) × /gu)].map(([, number]) => Number(number));
        expect(
          numbers.reduce((sum, next) => sum + next, 0),
          `seed ${seed}: ${remedy}`,
        ).toBe(fewest);
      }
    }
    expect(counted).toBeGreaterThan(40);
    expect(said).toBeGreaterThan(20);
  }, 120_000);

  it('ask for the least step, spread and limit of their kind: a nanometre less does not do', () => {
    let tried = 0;
    for (const { seed, request, remedies } of infeasible) {
      for (const remedy of remedies) {
        const less = (value: number) =>
          numberOfLength(nanometres(lengthOfNumber(value, request.unit) - 1), request.unit);
        const { rules, limit } = remedy;
        const tightened: FitRemedy | null =
          rules?.maxWallStep !== undefined
            ? { ...remedy, rules: { maxWallStep: less(rules.maxWallStep) } }
            : rules?.maxSpread && Object.keys(rules.maxSpread).length === 1 && remedy.shells.length === 0
              ? {
                  ...remedy,
                  rules: {
                    maxSpread: Object.fromEntries(
                      Object.entries(rules.maxSpread).map(([of, width]) => [of, less(width)]),
                    ),
                  },
                }
              : limit?.side === 'high'
                ? { ...remedy, limit: { ...limit, value: less(limit.value) } }
                : null;
        if (tightened === null) continue;
        tried += 1;
        const { status } = planRequest(remedied(request, tightened), { solver, explain: false });
        expect(status, `seed ${seed}: ${remedy.message}`).toBe('infeasible');
      }
    }
    expect(tried).toBeGreaterThan(20);
  }, 120_000);

  it('never say what halves would give where a wish keeps them out', () => {
    const shell = (id: string, wall: number, stock: number) => ({
      id,
      family: 'main' as const,
      series: 'A',
      half: 'either' as const,
      wall,
      stock,
    });
    const request = fitRequestSchema.parse({
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [{ id: 'M1', family: 'main', journal: 59.98, aim: 0.035, low: 0.03, high: 0.04 }],
      housings: [{ id: 'B1', family: 'main', bore: 64.005, station: 'M1' }],
      // With the thin ones it would run at 0.035, but there are none, and they are forbidden there as well.
      shells: [shell('thin', 1.995, 0), shell('thick', 2.005, 4)],
      wishes: { forbid: [{ station: 'M1', shell: 'thin' }] },
    });
    const [conflict] = planRequest(request).conflicts;
    expect(conflict!.kind).toBe('rules');
    expect(conflict!.message + conflict!.remedy).toContain('locks and exclusions');
    expect(conflict!.remedy).not.toContain('the clearance would be');
    for (const remedy of conflict!.remedies!)
      expect(planRequest(remedied(request, remedy)).status, remedy.message).toBe('optimal');
  });

  it('name the undersize of a wall to get', () => {
    const request = fitRequestSchema.parse({
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [{ id: 'M1', family: 'main', journal: 59.735, aim: 0.035, low: 0.03, high: 0.04 }],
      housings: [{ id: 'B1', family: 'main', bore: 64.01, station: 'M1' }],
      shells: (['upper', 'lower'] as const).map((half) => ({
        id: half,
        family: 'main',
        series: 'A',
        half,
        wall: 2.1,
        undersize: '0.25',
        stock: 1,
      })),
    });
    const walls = planRequest(request).conflicts[0]!.remedies!.filter(({ kind }) => kind === 'wall');
    expect(walls[0]!.message).toContain('0.25 under');
    expect(walls[0]!.newShells!.every(({ undersize }) => undersize === '0.25')).toBe(true);
    expect(planRequest(remedied(request, walls[0]!)).status).toBe('optimal');
  });
});

describe('what one more set saves', () => {
  it('is what HiGHS finds with the set on hand', async () => {
    let found = 0;
    for (let seed = 1; seed <= 8; seed += 1) {
      const request = gradedEngine(seed, 3, 3, 4);
      const plan = planRequest(request);
      if (plan.cost === null) continue;
      for (const { shells: ids, saving } of setSavings(problemOfRequest(request), plan.cost).sets) {
        const shells = request.shells.map((shell) =>
          ids.includes(shell.id) ? { ...shell, stock: shell.stock! + 1 } : shell,
        );
        expect(ids).toHaveLength(2);
        expect(plan.cost - (await leastCostByHighs({ ...request, shells }))!, `seed ${seed}`).toBeCloseTo(saving, 5);
        found += 1;
      }
    }
    expect(found).toBeGreaterThan(3);
  });
});

describe('a set', () => {
  const halves = (list: readonly { id: string; half: 'upper' | 'lower' | 'either'; undersize?: string }[]) =>
    fitRequestSchema.parse({
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [1, 2].map((at) => ({ id: `M${at}`, family: 'main', journal: 59.98, aim: 0.04, low: 0, high: 0.2 })),
      housings: [1, 2].map((at) => ({ id: `B${at}`, family: 'main', bore: 64.01, station: `M${at}` })),
      shells: [
        ...list.map((half) => ({
          family: 'main' as const,
          series: 'A',
          wall: 1.995,
          stock: half.half === 'either' ? 2 : 1,
          ...half,
        })),
        { id: 'thin', family: 'main', series: 'A', half: 'either', wall: 1.98, stock: null },
      ],
      rules: { mixedHalves: false },
    });

  it('of halves that fit either side is two of them, beside an upper with its lower of the same wall', () => {
    const request = halves([
      { id: 'upper', half: 'upper' },
      { id: 'lower', half: 'lower' },
      { id: 'both', half: 'either' },
    ]);
    expect(
      setSavings(
        problemOfRequest({ ...request, stations: request.stations.slice(0, 2) }),
        planRequest(request).cost! + 1,
      ).sets.map(({ shells }) => shells),
    ).toEqual([['upper', 'lower'], ['both']]);
  });

  it('is of one undersize', () => {
    const request = halves([
      { id: 'upper', half: 'upper' },
      { id: 'lower', half: 'lower', undersize: '0.25' },
    ]);
    expect(setSavings(problemOfRequest(request), planRequest(request).cost!).sets).toEqual([]);
  });
});

describe('prices', () => {
  it('are what one more half saves, and nothing else has one', () => {
    const request = wide(1);
    const plan = planRequest(request, { prices: true });
    const price = new Map(plan.prices!.map(({ id, price: saving }) => [id, saving]));
    for (const shell of request.shells) {
      const shells = request.shells.map((one) => (one === shell ? { ...one, stock: one.stock! + 1 } : one));
      const after = planRequest({ ...request, shells });
      expect(plan.cost! - after.cost!).toBeCloseTo(price.get(shell.id) ?? 0, 6);
    }
  });
});

describe('“on average”', () => {
  it('is the mean of the distances from the target, of a plan, an alternative and a placement alike', () => {
    expect(offTarget([])).toBeNull();
    expect(
      offTarget([
        { station: 'M1', deviation: 1000 },
        { station: 'M2', deviation: -3000 },
      ]),
    ).toEqual({ mean: 2000, worst: 3000, station: 'M2' });
    let compared = 0;
    for (let seed = 1; seed <= 60; seed += 1) {
      const request = fitRequestSchema.parse(requestInEitherUnit(seed));
      const solution = fit(problemOfRequest(request), { solver, explain: false });
      if (solution.status !== 'optimal') continue;
      const plan = planOfSolution(solution, request.unit);
      const [station] = plan.stations;
      const off = planOffTarget(solution)!;
      const mean = plan.stations.reduce((sum, { deviation }) => sum + Math.abs(deviation), 0) / plan.stations.length;
      expect(numberOfLength(off.mean, request.unit)).toBeCloseTo(mean, 6);
      for (const one of alternativesAt(problemOfRequest(request), station!.id, { solver }).slice(0, 4)) {
        if (one.cost === null) continue;
        const hold = [
          ...request.wishes.hold.filter((wish) => wish.station !== station!.id),
          { station: station!.id, housing: one.housing, upper: one.upper, lower: one.lower },
        ];
        const held = fit(problemOfRequest({ ...request, wishes: { ...request.wishes, hold } }), {
          solver,
          explain: false,
        });
        expect(held.cost).toBeCloseTo(one.cost, 6);
        // Of several plans of one cost any may be found: then only the cost says the same.
        if (planOffTarget(held)!.mean === one.meanOff) compared += 1;
      }
    }
    expect(compared).toBeGreaterThan(30);
  });

  it('has no part in what one more set is worth: the stations are named whose clearance it changes', () => {
    const request = wide(2);
    const short = {
      ...request,
      shells: request.shells.map((shell, at) => ({ ...shell, stock: at < 2 ? 1 : shell.stock })),
    };
    const plan = planRequest(short, { solver });
    for (const { changes, shells } of setSavings(problemOfRequest(short), plan.cost!, { solver }).sets) {
      expect(shells.length).toBeGreaterThan(0);
      for (const { before, after } of changes) expect(before).not.toBe(after);
    }
  });

  it('names a station that would not be mixed, where no clearance would be another', () => {
    const walls = { thin: 1.99, mid: 1.995, thick: 2 };
    const ids = ['M1', 'M2', 'M3'];
    const station = { family: 'main', journal: 59.985, aim: 0.035, low: 0.02, high: 0.05 };
    const request = fitRequestSchema.parse({
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: ids.map((id) => ({ ...station, id })),
      housings: ids.map((id) => ({ id: `B ${id}`, family: 'main', bore: 64.01, station: id })),
      shells: Object.entries(walls).map(([id, wall]) => ({
        id,
        family: 'main',
        series: 'A',
        half: 'either',
        wall,
        stock: id === 'mid' ? 4 : 6,
      })),
    });
    const plan = planRequest(request, { solver });
    const [best] = setSavings(problemOfRequest(request), plan.cost!, { solver }).sets;
    const [mixed] = plan.stations.flatMap(({ id, mixed }) => (mixed ? [id] : []));
    expect(best).toMatchObject({ shells: ['mid'], changes: [], unmixed: [mixed] });
  });
});
