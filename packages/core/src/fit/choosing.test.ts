import { describe, expect, it } from 'vitest';
import { alternativesAt, placementsOf } from './alternatives.js';
import { fit } from './fit.js';
import { type FitRequest, fitRequestSchema, readFitRequest } from './fitRequest.js';
import { halvesToOrder, planVariants } from './planVariants.js';
import { recheckPlan } from './recheckPlan.js';
import { setSavings } from './setSavings.js';
import { leastCostByHighs } from './testing/milp.js';
import { gradedEngine, randomRequest } from './testing/randomRequest.js';

const random = Array.from({ length: 300 }, (_, seed) => fitRequestSchema.parse(randomRequest(seed + 1)));
const wide = (seed: number): FitRequest => {
  const request = gradedEngine(seed, 3, 3, 4);
  return { ...request, shells: request.shells.map((shell) => ({ ...shell, stock: (shell.stock ?? 0) + 1 })) };
};

describe('alternatives of a station', () => {
  it('cost what HiGHS finds with that choice held, and the plan’s own choice is the cheapest', async () => {
    for (let seed = 1; seed <= 3; seed += 1) {
      const request = wide(seed);
      const plan = fit(request);
      if (plan.cost === null) continue;
      const [station] = request.stations;
      const alternatives = alternativesAt(request, station!.id);
      expect(alternatives[0]!.cost).toBe(plan.cost);
      for (const { housing, upper, lower, cost } of alternatives.slice(0, 12)) {
        const held = { ...request, wishes: { hold: [{ station: station!.id, housing, upper, lower }], forbid: [] } };
        const least = await leastCostByHighs(held);
        if (least === null) expect(cost).toBeNull();
        else expect(cost).toBeCloseTo(least, 5);
      }
    }
  });

  it('place every rod on every pin, with its cost or the reason', () => {
    const request = gradedEngine(4, 0, 4, 5);
    const placements = placementsOf(request, { engine: '', family: 'rod' });
    expect(placements).toHaveLength(16);
    const plan = fit(request);
    for (const { station, housing, cost, reason } of placements) {
      expect(cost === null).toBe(reason !== null);
      if (plan.stations.find(({ id }) => id === station)?.housing === housing) expect(cost).toBe(plan.cost);
    }
  });
});

describe('plans side by side', () => {
  it('are allowed, and order as their names promise', () => {
    let compared = 0;
    for (let seed = 1; seed <= 12; seed += 1) {
      const request = wide(seed);
      const { onHand, orderable, unmixed, evenest } = planVariants(request);
      if (onHand.cost === null) continue;
      compared += 1;
      expect(halvesToOrder(request, onHand)).toEqual([]);
      expect(orderable.cost!).toBeLessThanOrEqual(onHand.cost);
      if (unmixed.cost !== null) {
        expect(unmixed.cost).toBeGreaterThanOrEqual(onHand.cost);
        expect(unmixed.stations.some(({ mixed }) => mixed)).toBe(false);
      }
      expect(recheckPlan(request, evenest)).toEqual([]);
      const widest = (plan: typeof onHand) => plan.spread.find(({ family }) => family === 'main')!.value;
      expect(widest(evenest)).toBeLessThanOrEqual(widest(onHand));
      for (const { shell, count } of halvesToOrder(request, orderable)) {
        const used = orderable.shellsUsed.find(({ id }) => id === shell.id)!.count;
        expect(count).toBe(used - shell.stock!);
      }
    }
    expect(compared).toBeGreaterThan(4);
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
    const plan = fit({ ...request, wishes: { hold: [], forbid } });
    expect(plan.status).toBe('infeasible');
    expect(plan.conflicts[0]).toMatchObject({ kind: 'rules', stations: [station!.id] });
    expect(plan.conflicts[0]!.remedies![0]).toMatchObject({ kind: 'release', stations: [station!.id] });
  });
});

describe('remedies', () => {
  const infeasible = random.flatMap((request, at) => {
    const plan = fit(request);
    return plan.conflicts.length === 1 ? [{ seed: at + 1, request, remedies: plan.conflicts[0]!.remedies! }] : [];
  });
  const ofKind = (kind: string) =>
    infeasible.flatMap(({ seed, request, remedies }) =>
      remedies.filter((remedy) => remedy.kind === kind).map((remedy) => ({ seed, request, remedy })),
    );

  it('that buy halves make everything fit', () => {
    const purchases = ofKind('buy');
    expect(purchases.length).toBeGreaterThan(20);
    for (const { seed, request, remedy } of purchases) {
      const more = new Map(remedy.shells.map(({ id, count }) => [id, count]));
      const shells = request.shells.map((shell) => ({
        ...shell,
        stock: shell.stock === null ? null : shell.stock + (more.get(shell.id) ?? 0),
      }));
      expect(fit({ ...request, shells }).status, `seed ${seed}`).toBe('optimal');
    }
  });

  it('that move a limit, grind a journal or free a rod make everything fit', () => {
    let tried = 0;
    for (const { seed, request, remedy } of [...ofKind('limit'), ...ofKind('regrind'), ...ofKind('move-rod')]) {
      const [station] = remedy.stations;
      const number = Number(/([\d.]+) mm/u.exec(remedy.message)?.[1]);
      const change = remedy.message.startsWith('A low')
        ? { low: number }
        : remedy.message.startsWith('A high')
          ? { high: number }
          : remedy.kind === 'regrind'
            ? { journal: number }
            : {};
      const stations = request.stations.map((one) => (one.id === station ? { ...one, ...change } : one));
      const rod = /rod (\S+) leave/u.exec(remedy.message)?.[1];
      const housings = request.housings.map((one) => (one.id === rod ? { ...one, station: null } : one));
      expect(fit({ ...request, stations, housings }).status, `seed ${seed}: ${remedy.message}`).toBe('optimal');
      tried += 1;
    }
    expect(tried).toBeGreaterThan(20);
  });

  it('that let go of a wish or change a rule make everything fit', () => {
    let tried = 0;
    for (const { seed, request, remedy } of [...ofKind('release'), ...ofKind('rule')]) {
      const [station] = remedy.stations;
      const wishes = {
        hold: request.wishes.hold.filter((wish) => wish.station !== station),
        forbid: request.wishes.forbid.filter((wish) => wish.station !== station),
      };
      const step = Number(/wall step of ([\d.]+) mm/u.exec(remedy.message)?.[1] ?? request.rules.maxWallStep);
      const rules = {
        ...request.rules,
        maxWallStep: step,
        mixedHalves: request.rules.mixedHalves || remedy.message.includes('mixed'),
        acrossSeries: request.rules.acrossSeries || remedy.message.includes('series'),
        thinnerHalf: remedy.message.includes('either side') ? ('either' as const) : request.rules.thinnerHalf,
      };
      expect(fit({ ...request, wishes, rules }).status, `seed ${seed}: ${remedy.message}`).toBe('optimal');
      tried += 1;
    }
    expect(tried).toBeGreaterThan(10);
  });
});

describe('what one more set saves', () => {
  it('is what HiGHS finds with the set on hand', async () => {
    let found = 0;
    for (let seed = 1; seed <= 8; seed += 1) {
      const request = gradedEngine(seed, 3, 3, 4);
      const plan = fit(request);
      if (plan.cost === null) continue;
      for (const { shells: ids, saving } of setSavings(request, plan.cost)) {
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

describe('prices', () => {
  it('are what one more half saves, and nothing else has one', () => {
    const request = wide(1);
    const plan = fit(request, { prices: true });
    const price = new Map(plan.prices!.map(({ id, price: saving }) => [id, saving]));
    for (const shell of request.shells) {
      const shells = request.shells.map((one) => (one === shell ? { ...one, stock: one.stock! + 1 } : one));
      const after = fit({ ...request, shells });
      expect(plan.cost! - after.cost!).toBeCloseTo(price.get(shell.id) ?? 0, 6);
    }
  });
});
