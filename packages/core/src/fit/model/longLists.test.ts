import { describe, expect, it } from 'vitest';
import { nearestPair } from '../explain/nearestPair.js';
import { fitRequestSchema } from '../format/fitRequest.js';
import { problemOfRequest } from '../format/problemOfRequest.js';
import { leastChoice } from '../joint/leastChoice.js';
import { planRequest } from '../planRequest.js';
import { recheckPlan } from '../recheckPlan.js';
import { manyKinds, requestInEitherUnit } from '../testing/randomRequest.js';
import { choiceProblem, KEEP_ALL } from './choiceProblem.js';
import { type FitModel, fitModelOf, isWished, limitsWith } from './fitModel.js';
import { mergedShells } from './mergedShells.js';
import { clearanceWith, endPlayWith } from './optionCost.js';
import { shellPairs } from './shellPairs.js';
import { housingsByStation, stationOptions } from './stationOptions.js';

const models = Array.from(
  { length: 900 },
  (_, at) => mergedShells(fitModelOf(problemOfRequest(fitRequestSchema.parse(requestInEitherUnit(at + 1))))).model,
);

describe('of long lists of halves', () => {
  it('the pairs that are listed give the cost that every pair gives', () => {
    let [long, optimal] = [0, 0];
    const longer = Array.from({ length: 120 }, (_, at) => {
      const rules = {
        pricePenalty: [0, 0.2, 3][at % 3]!,
        acrossSeries: at % 2 === 0,
        tightWeight: [0, 1, 2.5][at % 3]!,
      };
      return fitModelOf(problemOfRequest(manyKinds(60 + at, rules, { mains: 1 + (at % 4), seed: at })));
    });
    for (const [at, model] of [...models, ...longer].entries()) {
      const whole = stationOptions(model);
      const listed = stationOptions(model, () => false, 0);
      const kept = listed.holds === 'all' ? KEEP_ALL : { ...KEEP_ALL, spread: false };
      const [one, other] = [whole, listed].map((options) => leastChoice(choiceProblem(model, options, kept)));
      expect(other!.status, `seed ${at + 1}`).toBe(one!.status);
      if ('cost' in one! && 'cost' in other!) {
        optimal += 1;
        expect(other.cost, `seed ${at + 1}`).toBe(one.cost);
      }
      if (listed.cost.length < whole.cost.length) long += 1;
    }
    expect(optimal).toBeGreaterThan(200);
    expect(long).toBeGreaterThan(20);
  }, 120_000);

  it('ten thousand kinds are answered, proven where nothing limits the spread', () => {
    for (const rules of [{}, { pricePenalty: 2 }, { pricePenalty: 2, acrossSeries: true }]) {
      const request = manyKinds(10_000, rules);
      const plan = planRequest(request);
      expect(plan.status).toBe('optimal');
      expect(plan.cost).toBe(plan.bound);
      expect(recheckPlan(request, plan)).toEqual([]);
    }
    const spread = manyKinds(10_000, { pricePenalty: 2, maxSpread: { main: 0.0004, rod: null } });
    const plan = planRequest(spread);
    expect(['optimal', 'feasible']).toContain(plan.status);
    expect(recheckPlan(spread, plan)).toEqual([]);
    expect(plan.bound!).toBeLessThanOrEqual(plan.cost!);
  }, 60_000);

  it('a limit of time holds while they are listed and while it is explained why nothing fits', () => {
    for (const [request, ms] of [
      [manyKinds(10_000, { pricePenalty: 2 }), 5],
      [manyKinds(10_000, {}, { wallFrom: 2.4 }), 300],
    ] as const) {
      let looks = 0;
      // A clock of its own: each look at it is a tenth of a millisecond.
      const clock = () => {
        looks += 1;
        return looks / 10;
      };
      const plan = planRequest(request, { clock, until: ms });
      expect(['stopped', 'infeasible', 'feasible']).toContain(plan.status);
      expect(clock()).toBeLessThan(ms + 2_000);
    }
  }, 60_000);
});

/** The pairs of a station, gone through one by one. */
function nearestOf(model: FitModel, at: number, keepsEndPlay: boolean): { outside: number; off: number } | null {
  const station = model.stations[at]!;
  const found = housingsByStation(model)[at]!.flatMap((housing) => {
    const { low, high } = limitsWith(station, model.housings[housing]!);
    return shellPairs(model.shells, station.family, model.rules, station.position).flatMap((pair) => {
      if (!isWished(model.wishes.get(at), { ...pair, housing })) return [];
      if (keepsEndPlay && station.endPlay !== null) {
        const left = endPlayWith(station.endPlay, pair);
        if (left === null || left < station.endPlay.low || left > station.endPlay.high) return [];
      }
      const clearance = clearanceWith(station, model.housings[housing]!, pair);
      return [{ outside: Math.max(0, low - clearance, clearance - high), off: Math.abs(clearance - station.aim) }];
    });
  });
  return found.sort((a, b) => a.outside - b.outside || a.off - b.off)[0] ?? null;
}

describe('the nearest pair', () => {
  it('is the one that going through every pair finds', () => {
    let found = 0;
    for (const [seed, model] of models.entries()) {
      for (const [at, station] of model.stations.entries()) {
        for (const keepsEndPlay of [false, true]) {
          const { shells, rules } = model;
          const near = nearestPair(model, at, { shells, rules, wish: model.wishes.get(at), keepsEndPlay });
          const other = nearestOf(model, at, keepsEndPlay);
          const told = near && { outside: Math.abs(near.miss), off: Math.abs(near.clearance - station.aim) };
          // Where the readings spread further than the limits are apart, both ends are missed; only how far counts.
          if (
            other &&
            told &&
            limitsWith(station, model.housings[near!.housing]!).low >
              limitsWith(station, model.housings[near!.housing]!).high
          )
            continue;
          expect(told, `seed ${seed + 1}, ${station.id}`).toEqual(other);
          if (near) found += 1;
        }
      }
    }
    expect(found).toBeGreaterThan(3000);
  }, 120_000);
});
