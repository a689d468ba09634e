import { describe, expect, it } from 'vitest';
import { jobDocumentSchema } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { countsInSpread } from '../selection/countsInSpread.js';
import { jobFit } from '../selection/jobFit.js';
import { rulesInWords } from '../selection/rulesInWords.js';
import { type FitRequestInput, fitRequestSchema } from './format/fitRequest.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';

/** Three mains whose bores differ by 0.006, and walls in steps of 0.002 that could even them out at the price of the target. */
function request(inSpread: readonly boolean[], maxSpread: number | null): FitRequestInput {
  const bores = [64.01, 64.016, 64.03];
  return {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: bores.map((_, at) => ({
      id: `M${at + 1}`,
      family: 'main' as const,
      journal: 59.98,
      aim: 0.04,
      low: 0.02,
      high: 0.07,
      inSpread: inSpread[at]!,
    })),
    housings: bores.map((bore, at) => ({ id: `B${at + 1}`, family: 'main' as const, bore, station: `M${at + 1}` })),
    shells: [1.995, 2].map((wall, at) => ({
      id: `s${at}`,
      family: 'main' as const,
      series: 'A',
      half: 'either' as const,
      wall,
      stock: null,
    })),
    rules: { mixedHalves: false, maxSpread: { main: maxSpread, rod: null } },
  };
}

const planOf = (input: FitRequestInput) => {
  const read = fitRequestSchema.parse(input);
  const plan = planRequest(read);
  expect(recheckPlan(read, plan)).toEqual([]);
  return plan;
};

/** The least cost by going through every choice of walls. */
function leastByHand(inSpread: readonly boolean[], maxSpread: number): number | null {
  let least: number | null = null;
  for (let choice = 0; choice < 8; choice += 1) {
    const off = [64_010, 64_016, 64_030].map(
      (bore, at) => bore - 59_980 - 2 * ((choice >> at) & 1 ? 2_000 : 1_995) - 40,
    );
    if (off.some((one) => one < -20 || one > 30)) continue;
    const counted = off.filter((_, at) => inSpread[at]);
    if (counted.length > 0 && Math.max(...counted) - Math.min(...counted) > maxSpread) continue;
    const cost = off.reduce((sum, one) => sum + (one < 0 ? 2 : 1) * one * one, 0);
    if (least === null || cost < least) least = cost;
  }
  return least;
}

// Common practice: front mains within a few tenths of each other, while the rear one is given more.
describe('a spread that holds among some mains', () => {
  it('finds the least cost that going through every choice finds, whichever mains count', () => {
    for (let which = 0; which < 8; which += 1) {
      const inSpread = [1, 2, 4].map((bit) => (which & bit) !== 0);
      for (const most of [0, 4, 6, 10, 14, 20, 30]) {
        const plan = planOf(request(inSpread, most / 1000));
        expect([which, most, plan.cost]).toEqual([which, most, leastByHand(inSpread, most)]);
      }
    }
  });

  it('tells the spread of those that count only, and names only them where none can be had', () => {
    const plan = planOf(request([true, true, false], 0.006));
    expect(plan.spread).toEqual([{ engine: '', family: 'main', value: 0.004 }]);
    expect(planOf(request([false, false, false], 0)).spread).toEqual([]);
    const none = planOf(request([true, true, false], 0.001));
    expect(none.conflicts).toMatchObject([{ kind: 'spread', stations: ['M1', 'M2'] }]);
  });

  it('is asked for by the mains of an engine, by number', () => {
    const usual = usualLayout(3, 2, 1, 2);
    if (!usual.ok) throw new Error(usual.message);
    const blank = newJob('Reed 6', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
    const um = (value: number) => nanometres(value * 1000);
    const job = jobDocumentSchema.parse({
      ...blank,
      limits: { ...blank.limits, mainClearance: { low: um(20), high: um(70), source: 'p. 5' } },
      rules: { ...blank.rules, maxSpread: um(5), spreadMains: [1, 2] },
      shells: {
        s: { family: 'main', series: 'A', grade: '1', half: 'either', wall: um(1_995), stock: null, line: null },
      },
    });
    const readings = [1, 2, 3].flatMap((station) =>
      (['mainBore', 'mainJournal'] as const).map(
        (feature) =>
          ({
            id: `00000000-0000-4000-8000-0000000000${feature === 'mainBore' ? 1 : 2}${station}`,
            feature,
            station,
            slot: feature === 'mainBore' ? 'front' : 'front-0',
            text: 'x',
            unit: 'mm',
            setting: null,
            nm: um(feature === 'mainBore' ? 64_010 : 59_980),
            replaces: null,
            by: 'Wren',
            at: '2026-01-01T00:00:00.000Z',
          }) as Reading,
      ),
    );
    const asked = jobFit(job, readings);
    expect(asked.ok && asked.problem.stations.map(({ inSpread }) => inSpread)).toEqual([true, true, false]);
    expect(rulesInWords(job)).toContain('spread of the mains 1-2 at most 0.005 mm');
    expect(countsInSpread(job.rules, { family: 'rod', number: 3 })).toBe(true);
  });
});
