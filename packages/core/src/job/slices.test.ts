import { describe, expect, it } from 'vitest';
import { BLANK_JOINT } from '../crush/crushSchema.js';
import { membersOf } from '../document/documentPart.js';
import { fit } from '../fit/fit.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { FEATURES } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { jobFit } from '../selection/jobFit.js';
import { plannedHalves } from '../selection/plannedHalves.js';
import { remedyForJob } from '../selection/remedyForJob.js';
import { dueOn } from './dueOn.js';
import { type JobDocument, jobDocumentSchema } from './jobDocument.js';
import { jobProgress } from './jobProgress.js';
import { newJob } from './newJob.js';
import { sheetContent } from './sheetContent.js';
import { placeWords, SLICES } from './slices.js';
import { STAGES, stageName } from './stageName.js';
import { partsOfStage } from './stages.js';

const um = (value: number) => nanometres(value * 1000);
const ID = '00000000-0000-4000-8000-0000000000aa';

/** Three mains, read, with limits; halves as they are given. */
function twin(shells: JobDocument['shells'], parts: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 1' });
  const limits = {
    ...job.limits,
    mainBore: limit(64_000, 64_019),
    mainJournal: limit(59_976, 59_994),
    mainClearance: limit(20, 50),
  };
  return jobDocumentSchema.parse({ ...job, limits, shells, ...parts });
}

const half = (wall: number, stock: number, side: 'upper' | 'lower' | 'either' = 'either') => ({
  family: 'main' as const,
  series: 'A',
  grade: String(wall),
  half: side,
  wall: um(wall),
  stock,
  line: null,
});

const stamp = { by: 'Wren', at: '2026-01-02T03:04:05.000Z' };
const GAP = { moment: 'without' as const, angle: 0 as const, text: '0.58', unit: 'mm' as const, nm: um(580), ...stamp };
const PIECES = {
  ...stamp,
  chosen: [{ place: 'stack' as const, piece: ID, label: 'Thin ring', thickness: um(240), count: 2 }],
  predicted: um(100),
  shift: um(0),
};

const readings: Reading[] = [1, 2, 3].flatMap((station) =>
  (['mainBore', 'mainJournal'] as const).flatMap((feature) =>
    (feature === 'mainBore' ? (['front', 'rear'] as const) : (['front-0', 'front-90'] as const)).map(
      (slot, at): Reading => ({
        id: `00000000-0000-4000-8000-${station}${feature === 'mainBore' ? 1 : 2}${at}000000000`,
        feature,
        station,
        slot,
        text: feature === 'mainBore' ? '64.010' : '59.980',
        unit: 'mm',
        setting: null,
        nm: um(feature === 'mainBore' ? 64_010 : 59_980),
        replaces: null,
        by: 'Wren',
        at: '2026-01-02T03:04:05.000Z',
      }),
    ),
  ),
);

describe('the slices', () => {
  it('own every member of the document, and are each one stage', () => {
    const members = Object.keys(twin({}));
    const owned = new Set(STAGES.flatMap((stage) => membersOf(...partsOfStage(stage))));
    expect(['format', ...owned].sort()).toEqual(members.sort());
    expect(SLICES.map(({ key }) => key)).toEqual(STAGES);
    expect(STAGES.map(stageName)).not.toContain('');
  });

  it('call every place of a document by words, never by an id', () => {
    const job = twin(
      { [ID]: half(1_995, 4) },
      {
        wishes: { M1: { upper: ID, lower: null, noShells: [ID], unmixed: true } },
        rods: { 1: { mark: 'A', pin: 2 } },
        marks: { mainBore: { text: 'A B C', first: 'front' } },
        rules: { ...twin({}).rules, extras: { M3: um(2) } },
        pieces: { [ID]: { kind: 'ring', name: 'Thin', thickness: um(240), stock: 2, line: null } },
        crush: { ...twin({}).crush, kind: 'saddle', joints: { M2: { ...BLANK_JOINT, choice: PIECES } } },
        endPlay: { ...twin({}).endPlay, readings: { [ID]: GAP }, choice: PIECES },
      },
    );
    const paths = (value: unknown, path: readonly string[]): string[][] =>
      typeof value === 'object' && value !== null
        ? [[...path], ...Object.entries(value).flatMap(([key, inner]) => paths(inner, [...path, key]))]
        : [[...path]];
    const all = paths(job, []).filter((path) => path.length > 0);
    expect(all.length).toBeGreaterThan(60);
    for (const path of all) {
      const words = placeWords(path, job);
      expect(words, path.join('/')).toMatch(/^[a-z0-9A-Z]/u);
      expect(words, path.join('/')).not.toMatch(/[0-9a-f]{8}-|undefined|mainBore|mainJournal|noShells|maxWallStep/u);
    }
    expect(placeWords(['shells', ID, 'stock'], job)).toBe('count of 1995 either (A)');
    expect(placeWords(['shells', 'gone', 'stock'], job)).toBe('count of a shell');
    expect(placeWords(['pieces', ID, 'stock'], job)).toBe('count of Thin ring');
    expect(placeWords(['pieces', 'gone', 'stock'], job)).toBe('count of a washer or shim');
    expect(placeWords(['crush', 'joints', 'M2', 'choice'], job)).toBe('accepted shims at M2');
    expect(placeWords(['limits', 'mainJournal', 'low'], job)).toBe('limits: main journal');
  });

  it('are folded into stages, the next thing to do, and the sheet, in the order of the work', () => {
    const empty = twin({});
    expect(Object.keys(jobProgress(empty, []).stages)).toEqual([
      'data',
      'cameApart',
      'bores',
      'journals',
      'drawer',
      'choose',
      'trial',
      'mainLine',
      'runout',
      'endPlay',
      'assembly',
      'torque',
      'sheet',
      'running',
    ]);
    const jointed = { ...empty, crush: { ...empty.crush, kind: 'split-line' as const } };
    expect(Object.keys(jobProgress(jointed, []).stages)).toContain('crush');
    const again = (on: string | null) => ({ ...BLANK_JOINT, recheck: on });
    const joints = { M2: again('2026-03-09'), M1: again('2026-03-12'), M3: again(null) };
    const settling = jobProgress({ ...jointed, crush: { ...jointed.crush, joints } }, []);
    expect(settling.reminders.map(({ on }) => on)).toEqual(['2026-03-09', '2026-03-12']);
    expect(dueOn(settling, '2026-03-08', { reserved: 0 })).toEqual({ next: settling.next, todo: settling.todo });
    expect(dueOn(settling, '2026-03-09', { reserved: 0 })).toEqual({
      next: 'crush',
      todo: 'Re-read joint M2 (settling check)',
    });
    expect(Object.keys(jobProgress({ ...empty, withRods: true }, []).stages)).toEqual([
      'data',
      'cameApart',
      ...FEATURES.map(
        (feature) => ({ mainBore: 'bores', mainJournal: 'journals', bigEnd: 'bigEnds', pin: 'pins' })[feature],
      ),
      'drawer',
      'choose',
      'trial',
      'mainLine',
      'runout',
      'endPlay',
      'assembly',
      'torque',
      'sheet',
      'running',
    ]);
    expect(jobProgress(empty, readings)).toMatchObject({ next: 'drawer', todo: 'Enter the shells in stock' });
    // A figure that cannot be right comes before the work that is next in its order.
    const [first, ...others] = readings;
    const doubtful = [...others, { ...first!, text: '63.510', nm: um(63_510) }];
    expect(jobProgress(empty, doubtful)).toMatchObject({
      next: 'bores',
      todo: 'Check M1: “63.510” cannot be right',
    });
  });

  it('print what was found before what it was judged by', () => {
    const job = twin({ a: half(2_000, 6) });
    const asked = jobFit(job, readings);
    if (!asked.ok) throw new Error(asked.reason);
    const stations = plannedHalves(job, asked, fit(asked.problem));
    const accepted = { ...job, choice: { at: '2026-01-02T03:04:05.000Z', by: 'Wren', stations } };
    const { facts, tables, notes } = sheetContent(accepted, readings);
    expect(tables.map(({ title }) => title)).toEqual([
      'Mains, millimetres',
      'Limits',
      'By hand',
      'Readings: main bores',
      'Readings: main journals',
    ]);
    // By hand: 64 010 − 59 980 − 2 · 2 000 = 30 µm.
    expect(tables[0]!.rows[0]!.cells.map(({ text }) => text)).toEqual([
      'M1',
      '64.010',
      '59.980',
      '2000',
      '2.000',
      '2000',
      '2.000',
      '0.0350',
      '0.0300',
      '0.0300',
      '0.0300',
      '',
    ]);
    expect(tables[0]!.rows[0]!.cells[11]).toMatchObject({ state: 'inside' });
    expect(facts.find(({ label }) => label === 'Selection accepted')).toMatchObject({ text: 'Wren' });
    expect(notes.join(' ')).toContain('licensed practice');
  });
});

describe('a remedy done to the job', () => {
  /** Nothing fits: what each remedy would do, and whether everything fits then. */
  const tried = (job: JobDocument, read = readings) => {
    const asked = jobFit(job, read);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    expect(plan.status).toBe('infeasible');
    let made = 0;
    const newId = () => `made-${++made}`;
    return plan.conflicts
      .flatMap(({ remedies }) => remedies ?? [])
      .map((remedy) => {
        const step = remedyForJob(job, asked, remedy, newId);
        if (step?.kind !== 'change') return [remedy.kind, step?.kind ?? null] as const;
        const after = jobDocumentSchema.parse(step.change(job));
        const again = jobFit(after, read);
        return [remedy.kind, again.ok ? fit(again.problem).status : again.reason] as const;
      });
  };
  /** A journal at its high limit: with halves of 2 003 µm it is 6 µm too tight there, and there alone. */
  const tightAtOne = readings.map((one) =>
    one.station === 1 && one.feature === 'mainJournal' ? { ...one, text: '59.990', nm: um(59_990) } : one,
  );
  const kinds = (found: readonly (readonly [string, string | null])[]) => new Set(found.map(([kind]) => kind));

  it('puts halves that are short in, and then everything fits', () => {
    const found = tried(twin({ a: half(2_000, 5) }));
    expect(kinds(found)).toContain('buy');
    for (const [kind, status] of found)
      expect([kind, status]).toEqual([kind, kind === 'regrind' ? 'grind' : 'optimal']);
  });

  it('changes the rule, the wall or the limit that is in the way', () => {
    const walls = { a: half(1_980, 6, 'upper'), b: half(2_012, 6, 'lower') };
    const found = tried(twin(walls, { rules: { ...twin({}).rules, maxWallStep: um(10), mixedHalves: true } }));
    for (const kind of ['rule', 'wall']) expect(kinds(found)).toContain(kind);
    const tight = tried(twin({ a: half(2_003, 6) }), tightAtOne);
    for (const kind of ['wall', 'limit', 'regrind']) expect(kinds(tight)).toContain(kind);
    for (const [kind, status] of [...found, ...tight]) {
      expect([kind, status]).toEqual([kind, kind === 'regrind' ? 'grind' : 'optimal']);
    }
  });

  it('lets go what is held, and says where a moved limit was moved', () => {
    const wishes = { M2: { upper: 'thick', lower: 'thick', noShells: [], unmixed: false } };
    const shells = { a: half(2_000, 6), thick: half(2_020, 6) };
    const found = tried(twin(shells, { wishes }));
    expect(kinds(found)).toContain('release');
    const job = twin({ a: half(2_003, 6) });
    const asked = jobFit(job, tightAtOne);
    if (!asked.ok) throw new Error(asked.reason);
    const { conflicts } = fit(asked.problem);
    const limit = conflicts.flatMap(({ remedies }) => remedies ?? []).find(({ kind }) => kind === 'limit')!;
    const step = remedyForJob(job, asked, limit, () => 'made');
    if (step?.kind !== 'change') throw new Error('a limit is moved in the job');
    expect(step.change(step.change(job)).limits.mainClearance?.source).toBe('book, p. 1 (limit moved here)');
  });
});

describe('places', () => {
  it('go from the halves to the search: flanged ones to the thrust main alone', () => {
    const flanged = { ...half(2_000, 2), grade: 'flanged', positions: ['thrust' as const] };
    const job = twin({ plain: half(2_001, 4), flanged });
    const asked = jobFit(job, readings);
    if (!asked.ok) throw new Error(asked.reason);
    expect(asked.problem.stations.map(({ position }) => position)).toEqual(['', 'thrust', '']);
    const plan = fit(asked.problem);
    const stations = plannedHalves(job, asked, plan);
    expect(Object.values(stations).map(({ upper, lower }) => [upper.shell, lower.shell])).toEqual([
      ['plain', 'plain'],
      ['flanged', 'flanged'],
      ['plain', 'plain'],
    ]);
  });
});
