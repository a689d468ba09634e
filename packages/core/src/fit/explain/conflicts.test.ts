import { describe, expect, it } from 'vitest';
import { seeded } from '../../measure/seeded.js';
import type { FitConflict } from '../format/fitPlan.js';
import { type FitRequest, fitRequestSchema } from '../format/fitRequest.js';
import { planRequest } from '../planRequest.js';
import { coversAll } from '../search/overdrawnGroup.js';
import { randomRequest } from '../testing/randomRequest.js';

/** The request cut down to some stations; free housings stay. */
function restrictedTo(request: FitRequest, ids: readonly string[]): FitRequest {
  return {
    ...request,
    stations: request.stations.filter(({ id }) => ids.includes(id)),
    housings: request.housings.filter(({ station }) => station === null || ids.includes(station)),
    wishes: {
      hold: request.wishes.hold.filter(({ station }) => ids.includes(station)),
      forbid: request.wishes.forbid.filter(({ station }) => ids.includes(station)),
    },
  };
}

/** The request with nothing short but its housings: what a conflict of matching is about. */
function housingsOnly(request: FitRequest): FitRequest {
  return {
    ...request,
    shells: request.shells.map((shell) => ({ ...shell, stock: null })),
    rules: { ...request.rules, maxSpread: { main: null, rod: null } },
  };
}

/** The halves that a remedy tells to get: `2 × plum upper and 1 × teal lower`. */
function withBought(request: FitRequest, remedy: string): FitRequest {
  const bought = new Map([...remedy.matchAll(/(\d+) × (\w+)/gu)].map(([, count, id]) => [id!, Number(count)]));
  return {
    ...request,
    shells: request.shells.map((shell) => ({
      ...shell,
      stock: shell.stock === null ? null : shell.stock + (bought.get(shell.id) ?? 0),
    })),
  };
}

const infeasible: { seed: number; request: FitRequest; conflicts: FitConflict[] }[] = [];
const seeds = Array.from({ length: 600 }, (_, at) => at + 1);
/** Rods that no housing suits, whatever the stock: rare among random requests. */
const unmatched = [1, 2, 3].map((seed): FitRequest => {
  const request = fitRequestSchema.parse(randomRequest(seed));
  const [station] = request.stations;
  return { ...request, housings: request.housings.filter((one) => one.station !== station!.id) };
});
for (const [at, request] of [
  ...seeds.map((seed) => fitRequestSchema.parse(randomRequest(seed))),
  ...unmatched,
].entries()) {
  const seed = at + 1;
  const plan = planRequest(request);
  if (plan.status === 'infeasible') infeasible.push({ seed, request, conflicts: plan.conflicts });
}
const ofKind = (...kinds: FitConflict['kind'][]) =>
  infeasible.flatMap(({ seed, request, conflicts }) =>
    conflicts
      .filter(({ kind }) => kinds.includes(kind))
      .map((conflict) => ({ seed, request, conflict, alone: conflicts.length === 1 })),
  );

describe('conflicts of seeded random requests', () => {
  it('come in every kind', () => {
    const kinds = new Set(infeasible.flatMap(({ conflicts }) => conflicts.map(({ kind }) => kind)));
    expect([...kinds].sort()).toEqual(['matching', 'no-pair-in-range', 'rules', 'spread', 'stock-short']);
  });

  it('name a group that does not fit, and that would without any one of its stations', () => {
    const groups = ofKind('stock-short', 'spread', 'matching').filter(
      ({ alone, conflict }) => alone && conflict.stations.length > 1,
    );
    expect(groups.length).toBeGreaterThan(20);
    for (const { seed, request, conflict } of groups) {
      expect(planRequest(restrictedTo(request, conflict.stations)).status, `seed ${seed}`).toBe('infeasible');
      for (const left of conflict.stations) {
        const rest = conflict.stations.filter((id) => id !== left);
        const asked = conflict.kind === 'matching' ? housingsOnly(request) : request;
        expect(planRequest(restrictedTo(asked, rest)).status, `seed ${seed} without ${left}`).toBe('optimal');
      }
    }
  });

  it('name purchases that put it right', () => {
    const short = ofKind('stock-short').filter(
      ({ alone, conflict }) => alone && conflict.remedy.startsWith('Fewest shells to get'),
    );
    expect(short.length).toBeGreaterThan(20);
    for (const { seed, request, conflict } of short) {
      const bought = planRequest(withBought(request, conflict.remedy));
      expect(bought.status, `seed ${seed}: ${conflict.remedy}`).toBe('optimal');
    }
  });

  it('name a spread that would do, and the next smaller would not', () => {
    const wide = ofKind('spread').filter(
      ({ alone, conflict }) => alone && /^A spread limit of [\d.]+ mm would work with/u.test(conflict.remedy),
    );
    expect(wide.length).toBeGreaterThan(5);
    for (const { seed, request, conflict } of wide) {
      const family = request.stations.find(({ id }) => id === conflict.stations[0])!.family;
      const needed = Number(/A spread limit of ([\d.]+) mm/u.exec(conflict.remedy)![1]);
      const at = (spread: number) =>
        planRequest({
          ...request,
          rules: { ...request.rules, maxSpread: { ...request.rules.maxSpread, [family]: spread } },
        }).status;
      expect(at(needed), `seed ${seed}`).toBe('optimal');
      expect(at(needed - 0.000001), `seed ${seed}`).toBe('infeasible');
    }
  });

  it('always say in words what is wrong and what would do', () => {
    for (const { seed, conflicts } of infeasible) {
      for (const { message, remedy } of conflicts) {
        expect(message.length, `seed ${seed}`).toBeGreaterThan(20);
        expect(remedy, `seed ${seed}`).toMatch(/\.$/u);
        expect(message + remedy, `seed ${seed}`).not.toMatch(/undefined|NaN|Infinity|\(\)/u);
      }
    }
  });
});

describe('sharing out resources', () => {
  it('agrees with trying every way', () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const random = seeded(seed);
      const capacity = [0, 1, 2, 3].map(() => Math.floor(random() * 3));
      const accepts = Array.from({ length: 4 }, () => new Set([0, 1, 2, 3].filter(() => random() < 0.4)));
      const can = (station: number, left: number[]): boolean =>
        station === accepts.length ||
        [...accepts[station]!].some(
          (resource) =>
            left[resource]! > 0 &&
            can(
              station + 1,
              left.map((count, at) => count - Number(at === resource)),
            ),
        );
      expect(coversAll(accepts, capacity), `seed ${seed}`).toBe(can(0, capacity));
    }
  });
});
