import { jobDocumentSchema, mainStations, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { expect, it } from 'vitest';
import { selectionFacts } from './selectionFacts.js';

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const half = (wall: number) => ({
  family: 'main' as const,
  series: 'A',
  grade: String(wall),
  half: 'either' as const,
  wall: um(wall),
  stock: 6,
  line: null,
});
const job = jobDocumentSchema.parse({
  ...blank,
  limits: { ...blank.limits, mainClearance: { low: um(20), high: um(50), source: 'book, p. 1' } },
  shells: { a: half(1_998), b: half(2_001) },
});
const read = (feature: 'mainBore' | 'mainJournal', station: number, size: number): Reading => ({
  id: `00000000-0000-4000-8000-00000000${feature.length}00${station}`,
  feature,
  station,
  slot: feature === 'mainBore' ? 'front' : 'front-0',
  text: 'x',
  unit: 'mm',
  setting: null,
  nm: um(size),
  replaces: null,
  by: 'Wren',
  at: '2026-01-02T03:04:05.000Z',
});
const readings = [
  [1, 64_010],
  [2, 64_013],
  [3, 64_008],
].flatMap(([station, bore]) => [read('mainBore', station!, bore!), read('mainJournal', station!, 59_980)]);
const chosen = (upper: 'a' | 'b', lower: 'a' | 'b') => {
  const of = (shell: 'a' | 'b') => ({ shell, label: shell, wall: job.shells[shell]!.wall });
  return { upper: of(upper), lower: of(lower), predicted: um(0), rod: null };
};

it('a selection is told by the stations it has: off target, spread with what that is known to, mixed', () => {
  const stations = new Map(mainStations(job, readings).map((one) => [one.id, one]));
  const facts = selectionFacts(job, stations, { M1: chosen('a', 'a'), M2: chosen('a', 'b'), M3: chosen('a', 'a') });
  // By hand, µm: 34, 34 and 32 with a target of 35: 1, 1 and 3 too tight.
  expect(facts.off).toEqual({ mean: 1_667, worst: 3_000, station: 'M3' });
  expect([facts.mixed, facts.stations]).toEqual([1, { main: 3, rod: 0 }]);
  // M1 or M2 over M3. What both have (settings, the wall of the kind) falls out; one bore and one journal each stay: 4 · 2.083 µm², and for M2
  // the walls of two kinds besides.
  expect(facts.spread.main!.by).toBe(um(2));
  const readOnce = 2 + 0.25 / 3;
  const wall = 1.25 + 0.25 / 3;
  expect([4 * readOnce, 4 * readOnce + 2 * wall].map((square) => 1000 * Math.sqrt(square))).toContainEqual(
    expect.closeTo(facts.spread.main!.u, 6),
  );
  expect(selectionFacts(job, stations, {})).toMatchObject({ off: null, spread: {}, mixed: 0 });
});
