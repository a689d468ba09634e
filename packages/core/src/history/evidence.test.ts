import { describe, expect, it } from 'vitest';
import { fit } from '../fit/fit.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { sheetContent } from '../job/sheetContent.js';
import { budgetUncertainty } from '../measure/budget.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { jobFit } from '../selection/jobFit.js';
import { plannedHalves } from '../selection/plannedHalves.js';
import type { ExpectedOffset } from '../station/expectedOffsetSchema.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { Trial } from '../station/trialSchema.js';
import { engineEvidence } from './engineEvidence.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const at = (minute: number) => `2026-02-03T08:${String(minute).padStart(2, '0')}:00.000Z`;
const half = { shell: 'thin', label: 'Osier thin', series: 'Osier', wall: um(1_996) };

/** Three mains of 64.010 over 59.980 with halves of 1.996: 0.038. */
function twin(parts: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const shell = { family: 'main' as const, series: 'Osier', half: 'either' as const, stock: null, line: null };
  const stations = Object.fromEntries(
    ['M1', 'M2', 'M3'].map((id) => [id, { upper: half, lower: half, predicted: um(38), rod: null }]),
  );
  const kept = ({ series: _, ...rest }: typeof half) => rest;
  const chosen = Object.fromEntries(
    Object.entries(stations).map(([id, one]) => [id, { ...one, upper: kept(one.upper), lower: kept(one.lower) }]),
  );
  return jobDocumentSchema.parse({
    ...job,
    limits: { ...job.limits, mainClearance: { low: um(25), high: um(51), source: 'book, p. 1' } },
    shells: { thin: { ...shell, grade: 'thin', wall: um(1_996) }, mid: { ...shell, grade: 'mid', wall: um(1_999) } },
    choice: { at: at(0), by: 'Wren', stations: chosen },
    ...parts,
  });
}

const readings: Reading[] = [1, 2, 3].flatMap((station) =>
  (
    [
      ['mainBore', 'front', 64_010],
      ['mainJournal', 'front-0', 59_980],
    ] as const
  ).map(([feature, slot, size], row): Reading => {
    const id = `00000000-0000-4000-8000-${String(station * 2 + row).padStart(12, '0')}`;
    const rest = { unit: 'mm' as const, setting: null, replaces: null, by: 'Wren', at: at(0) };
    return { id, feature, station, slot, text: String(size / 1000), nm: um(size), ...rest };
  }),
);

function trial(clearance: number, minute: number): Trial {
  const one = {
    text: 'x',
    unit: 'mm' as const,
    nm: um(clearance),
    mode: 'journal' as const,
    setting: null,
    needle: null,
    by: 'Wren',
    at: at(minute),
  };
  const stamp = { isBelieved: true, at: at(minute), by: 'Wren' };
  return { upper: half, lower: half, rod: null, readings: { one }, ...stamp };
}

describe('what one engine tells', () => {
  it('is nothing until its selection is accepted', () => {
    expect(engineEvidence({ ...twin(), choice: null }, readings)).toBeNull();
    expect(engineEvidence(twin(), readings)).toMatchObject({
      type: '',
      by: 'Wren',
      at: at(0),
      offsets: [],
      checks: [],
    });
  });

  it('of its trials: one offset for a series and fasteners, and each trial against those before it', () => {
    const trials = { M1: trial(36, 10), M3: trial(37, 20), M2: trial(34, 30) };
    const { offsets, checks } = engineEvidence(twin({ trials }), readings)!;
    expect(offsets).toEqual([expect.objectContaining({ family: 'main', series: 'Osier', fasteners: '', trials: 3 })]);
    // By hand: −2, −1 and −4 µm, all known alike.
    expect(Math.abs(offsets[0]!.offset + 7_000 / 3)).toBeLessThan(2);
    expect(checks.map(({ station, off }) => [station, Math.round(off)])).toEqual([
      ['M3', 1_000],
      ['M2', -2_500],
    ]);
    for (const { u } of checks) expect(u).toBeGreaterThan(1_000);
  });

  it('of its shells: how many of each grade, and the walls that were measured', () => {
    const { uses, walls } = engineEvidence(twin(), readings)!;
    expect(uses).toEqual([
      { family: 'main', series: 'Osier', grade: 'thin', half: 'upper', count: 3 },
      { family: 'main', series: 'Osier', grade: 'thin', half: 'lower', count: 3 },
    ]);
    expect(walls).toEqual([expect.objectContaining({ grade: 'thin', wall: um(1_996), low: null, high: null })]);
  });
});

describe('an offset that other engines let expect', () => {
  const expected: ExpectedOffset = {
    offset: um(-2),
    u: 2_500,
    engines: 40,
    type: 'Rush Twin',
    fasteners: '',
    by: 'Wren',
    at: at(5),
  };
  const taken = { 'main Osier': expected };
  const stationOf = (job: JobDocument, id = 'M2') => jobFacts(job, readings).stations.find((one) => one.id === id)!;
  const verdictOf = (job: JobDocument) => stationVerdict(job, stationOf(job), job.choice!.stations.M2!);

  it('counts only where it was taken over, with its uncertainty, in the clearance and in the selection', () => {
    const [without, with_] = [verdictOf(twin()), verdictOf(twin({ expected: taken }))];
    expect([without.clearance!.nominal, without.offset]).toEqual([um(38), null]);
    expect([with_.clearance!.nominal, with_.offset!.engines]).toEqual([um(36), 40]);
    expect(with_.u! ** 2).toBeCloseTo(without.u! ** 2 + 2_500 ** 2, 0);
    expect(with_.budget!.find(({ key }) => key === 'expected:main Osier')!.words).toBe(
      'offset expected from 40 engines',
    );
    // Two stations share it: their difference does not depend on it.
    const asked = jobFit(twin({ expected: taken, choice: null }), readings);
    if (!asked.ok) throw new Error(asked.reason);
    expect(asked.problem.stations.every(({ offsets }) => offsets[0]?.offset === um(-2))).toBe(true);
    const planned = plannedHalves(twin(), asked, fit(asked.problem));
    expect(planned.M2!.predicted).toBe(um(36));
  });

  it('gives way to a trial of this engine, and is not applied with other fasteners', () => {
    const tried = twin({ expected: taken, trials: { M1: trial(35, 10) }, trialSchool: 'one' });
    expect(stationOf(tried).offsets).toMatchObject([{ offset: um(-3), stations: ['M1'], engines: 0 }]);
    const job = twin({ expected: taken });
    const main = { ...job.fasteners.main, name: 'studs' };
    expect(stationOf({ ...job, fasteners: { ...job.fasteners, main } }).offsets).toEqual([]);
  });

  it('belongs to its family and its series', () => {
    const job = twin({ expected: { 'main Sallow': expected, 'rod Osier': expected } });
    expect([verdictOf(job).offset, verdictOf(job).clearance!.nominal]).toEqual([null, um(38)]);
  });

  it('says on the sheet what it comes from', () => {
    const { facts } = sheetContent(twin({ expected: taken }), readings);
    const said = facts.find(({ label }) => label === 'Assembly offset applied')!.text;
    expect(said).toContain('expected from 40 engines (at M1, M2, M3)');
  });

  it('is no evidence itself: the trials of the engine tell what they told', () => {
    const trials = { M1: trial(35, 10) };
    const [one, other] = [twin({ trials }), twin({ trials, expected: taken })].map(
      (job) => engineEvidence(job, readings)!.offsets,
    );
    expect(other).toEqual(one);
    expect(budgetUncertainty(stationOf(twin({ trials }), 'M1').tried!.budget)).toBeCloseTo(one![0]!.u, 6);
  });
});
