import { describe, expect, it } from 'vitest';
import { fit } from '../fit/fit.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { mainStations } from '../station/jobStations.js';
import { barredPairs } from './barredPairs.js';
import { jobFit } from './jobFit.js';
import { remedyForJob } from './remedyForJob.js';
import { stationOutcomes } from './remedyOutcome.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

/** Three mains of 64.010 over 59.985: 4.025 for both walls and the oil, of which 0.020 to 0.050 is oil. */
function twin(walls: Record<string, readonly [wall: number, stock: number | null, series?: string]>): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const half = ([wall, stock, series = 'Osier']: readonly [number, number | null, string?]) => ({
    family: 'main' as const,
    series,
    grade: String(wall),
    half: 'either' as const,
    wall: um(wall),
    stock,
    line: null,
  });
  return jobDocumentSchema.parse({
    ...job,
    limits: { ...job.limits, mainClearance: { low: um(20), high: um(50), source: 'book, p. 1' } },
    shells: Object.fromEntries(Object.entries(walls).map(([id, one]) => [id, half(one)])),
  });
}

const at = '2026-02-03T04:05:06.000Z';
const readings = [1, 2, 3].flatMap((station) =>
  (['mainBore', 'mainJournal'] as const).map((feature): Reading => {
    const id = `00000000-0000-4000-8000-00000000${feature === 'mainBore' ? '1' : '2'}00${station}`;
    const nm = um(feature === 'mainBore' ? 64_010 : 59_985);
    const slot = feature === 'mainBore' ? 'front' : 'front-0';
    return { id, feature, station, slot, text: 'x', unit: 'mm', setting: null, replaces: null, by: 'Wren', at, nm };
  }),
);

describe('what a remedy leads to', () => {
  it('is the clearance of the pair nearest to the aim, once the remedy is done, with its chance', () => {
    const job = twin({ thick: [2_010, 6] });
    const asked = jobFit(job, readings);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    const remedy = plan.conflicts
      .flatMap(({ remedies }) => remedies ?? [])
      .find(({ newShells = [] }) => newShells.length > 0)!;
    let made = 0;
    const newId = () => {
      made += 1;
      return `new ${made}`;
    };
    const step = remedyForJob(job, asked, remedy, newId);
    if (step?.kind !== 'change') throw new Error('nothing to change');
    const [outcome] = stationOutcomes(step.change(job), readings, ['M1']);
    expect(outcome!.clearance).toBeGreaterThanOrEqual(um(20));
    expect(outcome!.clearance).toBeLessThanOrEqual(um(50));
    expect(outcome!.chance).toBeGreaterThan(0.5);
    // Without it the thick halves leave 4 025 − 4 020 = 5 µm: hardly inside.
    const [before] = stationOutcomes(job, readings, ['M1']);
    expect([before!.clearance, before!.chance! < 0.01]).toEqual([um(5), true]);
    expect(stationOutcomes(job, readings, ['M9'])).toEqual([]);
  });
});

describe('pairs that would do and are not allowed', () => {
  const barred = (job: JobDocument) => barredPairs(job, mainStations(job, readings)[0]!, 5);

  it('are told with the rule that keeps them out, nearest to the aim first', () => {
    // By hand, µm: 4 025 − 1 985 − 2 005 = 35, the aim, of two series; with its own 55 and 15, outside.
    const job = twin({ thin: [1_985, null], thick: [2_005, null, 'Marsh'] });
    expect(barred(job)).toMatchObject([
      { upper: 'thick', lower: 'thin', clearance: um(35), why: 'series' },
      { upper: 'thin', lower: 'thick', clearance: um(35), why: 'series' },
    ]);
    const allowed = { ...job, rules: { ...job.rules, ...barred(job)[0]!.rules } };
    expect(barred(allowed)).toEqual([]);
    expect(jobFit(allowed, readings).ok).toBe(true);
  });

  it('are told for a step that is too large, for mixing, and for the side of the thinner shell', () => {
    const job = twin({ thin: [1_985, null], thick: [2_005, null] });
    expect(barred(job).map(({ why, rules }) => [why, rules.maxWallStep])).toEqual([
      ['step', um(20)],
      ['step', um(20)],
    ]);
    const rules = { ...job.rules, maxWallStep: um(30) };
    expect(barred({ ...job, rules: { ...rules, mixedHalves: false } }).map(({ why }) => why)).toEqual([
      'mixed',
      'mixed',
    ]);
    expect(barred({ ...job, rules: { ...rules, thinnerHalf: 'lower' } })).toMatchObject([
      { upper: 'thin', lower: 'thick', why: 'thinner-side', rules: { thinnerHalf: 'either' } },
    ]);
    expect(barred({ ...job, limits: { ...job.limits, mainClearance: null } })).toEqual([]);
  });
});
