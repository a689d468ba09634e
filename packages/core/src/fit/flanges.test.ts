import { describe, expect, it } from 'vitest';
import { seeded } from '../measure/seeded.js';
import { type FitRequest, type FitRequestInput, readFitRequest } from './format/fitRequest.js';
import { planRequest } from './planRequest.js';
import { recheckPlan } from './recheckPlan.js';
import { leastCostOf, programmeOf } from './testing/milp.js';

function read(input: FitRequestInput): FitRequest {
  const result = readFitRequest(input);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.request;
}

type Shell = FitRequestInput['shells'][number];
const half = (id: string, side: 'upper' | 'lower' | 'either', wall: number, more: Partial<Shell> = {}): Shell => ({
  id,
  family: 'main',
  series: 'A',
  half: side,
  wall,
  stock: 2,
  ...more,
});

/** One thrust main: 64.012 − 59.981 − both walls, and 0.05 + 31.8 − the width. */
function thrust(shells: Shell[], weight = 0): FitRequestInput {
  const endPlay = { reading: 0.05, fitted: 31.8, low: 0.07, high: 0.27, aim: 0.17, weight };
  return {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: [{ id: 'M3', family: 'main', journal: 59.981, aim: 0.041, low: 0.025, high: 0.06, endPlay }],
    housings: [{ id: 'B3', family: 'main', bore: 64.012, station: 'M3' }],
    shells,
  };
}

const chosen = (input: FitRequestInput) => planRequest(read(input)).stations[0];

describe('halves with flanges', () => {
  const plain = half('plain', 'lower', 1.995);
  const wide = half('wide', 'upper', 1.995, { width: 31.75 });
  const narrow = half('narrow', 'upper', 1.995, { width: 31.68 });
  const off = half('off', 'upper', 1.997, { width: 31.68 });

  it('of equal clearance: the one that is nearer to the end play target', () => {
    // By hand: 0.05 + 31.8 − 31.68 = 0.17, on the aim; with the wide one 0.10.
    expect(chosen(thrust([plain, wide, narrow]))).toMatchObject({ upper: 'narrow', clearance: 0.041, endPlay: 0.17 });
    expect(chosen(thrust([plain, wide]))).toMatchObject({ upper: 'wide', endPlay: 0.1 });
  });

  it('never against the clearance, unless it is weighed', () => {
    const pair = [plain, wide, off];
    // 2 µm off the aim of the clearance cost 2 · 4, and the mix 4; 70 µm of end play cost 2 · 4900 times their weight.
    expect(chosen(thrust(pair))).toMatchObject({ upper: 'wide' });
    expect(chosen(thrust(pair, 0.002))).toMatchObject({ upper: 'off', endPlay: 0.17 });
    const { cost } = planRequest(read({ ...thrust([plain, wide], 0.01), rules: { mixedPenalty: 0 } }));
    expect(cost).toBe(98);
  });

  it('one over a plain half counts with its own width; the wider of two does', () => {
    const both = [half('u', 'upper', 1.995, { width: 31.7 }), half('l', 'lower', 1.995, { width: 31.72 })];
    expect(chosen(thrust(both))).toMatchObject({ endPlay: 0.13 });
  });

  it('are needed where the end play is asked for, and what lacks is told', () => {
    const none = planRequest(read(thrust([plain, half('bare', 'upper', 1.995)])));
    expect(none).toMatchObject({ status: 'infeasible', conflicts: [{ kind: 'no-pair-in-range', stations: ['M3'] }] });
    const wider = planRequest(read(thrust([plain, half('far', 'upper', 1.995, { width: 31.9 })])));
    expect(wider.conflicts[0]!.message).toContain('0.070 mm to 0.270 mm');
    // By hand: 31.85 − 0.27 and 31.85 − 0.07.
    expect(wider.conflicts[0]!.remedy).toContain('31.580 mm to 31.780 mm');
  });

  it('are chosen at least cost, as HiGHS finds it, and every plan adds up', async () => {
    const random = seeded(31);
    const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
    let optimal = 0;
    let infeasible = 0;
    for (let at = 0; at < 150; at += 1) {
      const um = (value: number) => value / 1000;
      const mains = whole(2, 4);
      const shells = Array.from({ length: whole(3, 7) }, (_, id) =>
        half(`s${id}`, (['upper', 'lower', 'either'] as const)[whole(0, 2)]!, um(1_990 + 3 * whole(0, 3)), {
          stock: whole(1, 4),
          ...(random() < 0.7 ? { width: um(31_700 + 20 * whole(0, 6)) } : {}),
        }),
      );
      const base = thrust(shells, [0, 0, 0.01, 0.5][whole(0, 3)]!);
      const request = read({
        ...base,
        stations: Array.from({ length: mains }, (_, main) => ({
          ...base.stations[0]!,
          id: `M${main}`,
          journal: um(59_978 + whole(0, 8)),
          ...(main === 0 ? {} : { endPlay: undefined }),
        })),
        housings: Array.from({ length: mains }, (_, main) => ({
          ...base.housings[0]!,
          id: `B${main}`,
          bore: um(64_006 + whole(0, 10)),
          station: `M${main}`,
        })),
        rules: { maxSpread: random() < 0.3 ? { main: 0.01 } : null, tightWeight: [1, 2][whole(0, 1)]! },
      });
      const plan = planRequest(request);
      const programme = programmeOf(request);
      const least = programme === null ? null : await leastCostOf(programme);
      expect(plan.status, JSON.stringify(request)).toBe(least === null ? 'infeasible' : 'optimal');
      expect(recheckPlan(request, plan)).toEqual([]);
      if (least === null) infeasible += 1;
      else {
        optimal += 1;
        expect(plan.cost!).toBeCloseTo(least, 4);
      }
    }
    expect(Math.min(optimal, infeasible)).toBeGreaterThan(20);
  });
});
