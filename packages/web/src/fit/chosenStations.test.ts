import {
  clearancesAtHand,
  fit,
  type JobDocument,
  jobFit,
  nanometres,
  newJob,
  plannedHalves,
  type Reading,
  usualLayout,
} from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { chosenStations } from './chosenStations.js';

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 1' });
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
const half = (family: 'main' | 'rod', wall: number) => ({
  family,
  series: 'A',
  grade: String(wall),
  half: 'either' as const,
  wall: um(wall),
  stock: 6,
  line: null,
});
const job: JobDocument = {
  ...blank,
  limits: {
    ...blank.limits,
    mainBore: limit(64_000, 64_019),
    mainJournal: limit(59_976, 59_994),
    mainClearance: limit(20, 50),
    bigEnd: limit(51_000, 51_019),
    pin: limit(47_980, 48_000),
    rodClearance: limit(20, 50),
  },
  shells: { a: half('main', 1_998), b: half('main', 2_001), r: half('rod', 1_492) },
};
const sizes = { mainBore: 64_010, mainJournal: 59_980, bigEnd: 51_010, pin: 47_990 } as const;
const readings = (Object.keys(sizes) as (keyof typeof sizes)[]).flatMap((feature) =>
  [1, 2, 3].slice(0, feature.startsWith('main') ? 3 : 2).map(
    (station): Reading => ({
      id: `00000000-0000-4000-8000-00000000${feature.length}00${station}`,
      feature,
      station,
      slot: feature === 'mainBore' || feature === 'bigEnd' ? 'front' : 'front-0',
      text: String(sizes[feature] / 1000),
      unit: 'mm',
      setting: null,
      nm: um(sizes[feature]),
      replaces: null,
      by: 'Wren',
      at: '2026-01-02T03:04:05.000Z',
    }),
  ),
);

describe('stations with their chosen halves', () => {
  const asked = jobFit(job, readings);
  if (!asked.ok) throw new Error(asked.reason);
  const halves = plannedHalves(job, asked, fit(asked.problem));

  it('carry the rods that the choice puts on the pins, with what every pair would give', () => {
    const { stations, verdicts } = chosenStations(job, readings, halves);
    expect([...stations.keys()]).toEqual(['M1', 'M2', 'M3', 'P1', 'P2']);
    expect(new Set([stations.get('P1')?.rod, stations.get('P2')?.rod])).toEqual(new Set([1, 2]));
    // By hand, µm: 64 010 − 59 980 less 3 996, 3 999 (twice, one on either side) and 4 002.
    const atHand = clearancesAtHand(job, stations.get('M1')!);
    expect(atHand.count).toBe(4);
    expect(atHand.clearances.map(({ nominal }) => nominal / 1000)).toEqual([28, 31, 34]);
    // 51 010 − 47 990 − 2 984 = 36.
    expect(verdicts.get('P2')?.clearance?.nominal).toBe(36_000);
    expect([...verdicts.values()].map(({ state }) => state)).toEqual(Array(5).fill('inside'));
  });

  it('without a choice have sizes and no clearance, and a pin has the rod that is kept on it', () => {
    const kept = { ...job, rods: { 2: { mark: '', pin: 1 } } };
    const { stations, verdicts } = chosenStations(kept, readings, {});
    expect([stations.get('P1')?.rod, stations.get('P2')?.rod]).toEqual([2, null]);
    expect([...verdicts.values()].every(({ clearance }) => clearance === null)).toBe(true);
  });
});
