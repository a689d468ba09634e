import { describe, expect, it } from 'vitest';
import { fit } from '../fit/fit.js';
import { planVariants } from '../fit/planVariants.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature, Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { mayTakePin, pinBank } from '../part/rodBanks.js';
import type { JobShell } from '../shell/jobShell.js';
import { mainStations } from '../station/jobStations.js';
import { withDrawn } from './countedShells.js';
import { jobFit } from './jobFit.js';
import { stationCandidates } from './stationCandidates.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

let made = 0;
function reading(feature: Feature, station: number, slot: Slot, sizeUm: number): Reading {
  made += 1;
  return {
    id: `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`,
    feature,
    station,
    slot,
    text: (sizeUm / 1000).toFixed(3),
    unit: 'mm',
    setting: null,
    nm: um(sizeUm),
    replaces: null,
    by: 'Wren',
    at: '2026-02-03T08:00:00.000Z',
  };
}

const half = (family: 'main' | 'rod', wall: number, parts: Partial<JobShell> = {}): JobShell => ({
  family,
  series: 'Osier',
  grade: String(wall),
  half: 'either',
  wall: um(wall),
  stock: null,
  line: null,
  ...parts,
});

function engine(shells: JobDocument['shells'], parts: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(5, 8, 2, 5);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Samphire 8', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
  const limit = { low: um(20), high: um(50), source: 'book, p. 1' };
  return jobDocumentSchema.parse({
    ...job,
    limits: { ...job.limits, mainClearance: limit, rodClearance: limit },
    shells,
    ...parts,
  });
}

const mains = [1, 2, 3, 4, 5].flatMap((station) => [
  reading('mainBore', station, 'front', 64_010),
  reading('mainJournal', station, 'front-0', 59_980),
]);

function planOf(job: JobDocument, readings: readonly Reading[]) {
  const asked = jobFit(job, readings);
  if (!asked.ok) throw new Error(asked.reason);
  return { problem: asked.problem, asked };
}

describe('grades that nobody counted', () => {
  // On target with the grade of the data sheet, which nobody has; 6 µm off with what is on hand.
  const paper = { paper: half('main', 1.9975 * 1000) };
  const box = { box: half('main', 1_994.5, { stock: 20 }) };

  it('take no part beside counted ones; what could be ordered still has them', () => {
    const { problem } = planOf(engine({ ...paper, ...box }), mains);
    const plan = fit(problem);
    expect(plan.status).toBe('optimal');
    expect(new Set(plan.shellsUsed.map(({ id }) => id))).toEqual(new Set(['box']));
    const { orderable } = planVariants(problem);
    expect(orderable.shellsUsed.map(({ id }) => id)).toEqual(['paper']);
    const job = engine({ ...paper, ...box });
    const candidates = stationCandidates(job, mainStations(job, mains)[0]!);
    expect(candidates.map(({ upper }) => upper)).toEqual(['box']);
    // Alone they are all that could be ordered.
    expect(fit(planOf(engine(paper), mains).problem).status).toBe('optimal');
  });

  it('are replaced by what is drawn on the workshop’s stock of their series', () => {
    const line = '7a100000-0000-4000-8000-000000000001';
    const drawn = { drawn: half('main', 1_997.5, { line, stock: null }) };
    const other = { other: half('main', 1_997.5, { series: 'Rush' }), rod: half('rod', 1_997.5) };
    expect(Object.keys(withDrawn({ ...paper, ...box, ...other }, drawn)).sort()).toEqual([
      'box',
      'drawn',
      'other',
      'rod',
    ]);
  });
});

describe('rods of an engine with two rods a pin', () => {
  const rods = Array.from({ length: 8 }, (_, at) => at + 1);
  // Each rod would suit its neighbour's pin on the other bank best.
  const readings = rods.flatMap((number) => [
    reading('pin', number, 'front-0', 47_980 + (number % 2 === 0 ? 0 : 6)),
    reading('bigEnd', number, 'front', 52_010 + (number % 2 === 0 ? 6 : 0)),
  ]);
  const shells = { rod: half('rod', 1_997.5, { stock: 40 }) };
  const placed = (job: JobDocument) => {
    const { problem, asked } = planOf(job, readings);
    return fit(problem).stations.map(
      ({ id, housing }) => [Number(id.slice(1)), asked.rodNumbers.get(housing)!] as const,
    );
  };

  it('stay on their bank, unless the fitter allows otherwise', () => {
    const job = engine(shells);
    expect(rods.map((number) => pinBank(job.layout, number))).toEqual(['A', 'B', 'A', 'B', 'A', 'B', 'A', 'B']);
    for (const [pin, rod] of placed(job)) expect(mayTakePin(job, rod, pin), `R${rod} on P${pin}`).toBe(true);
    const free = engine(shells, { rules: { ...job.rules, rodsAcrossBanks: true } });
    expect(placed(free).some(([pin, rod]) => pin % 2 !== rod % 2)).toBe(true);
  });

  it('belong to the bank that the fitter gives them', () => {
    const job = engine(shells, {
      rods: { '1': { mark: '', pin: null, bank: 'B' }, '2': { mark: '', pin: null, bank: 'A' } },
    });
    const of = new Map(placed(job).map(([pin, rod]) => [rod, pin]));
    expect([of.get(1)! % 2, of.get(2)! % 2]).toEqual([0, 1]);
    // One that is locked on a pin of the other bank is where the fitter wants it.
    const kept = engine(shells, { rods: { '1': { mark: '', pin: 2 }, '2': { mark: '', pin: 1 } } });
    expect(new Map(placed(kept).map(([pin, rod]) => [rod, pin])).get(1)).toBe(2);
  });
});
