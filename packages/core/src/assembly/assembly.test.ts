import { describe, expect, it } from 'vitest';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { jobProgress } from '../job/jobProgress.js';
import { newJob } from '../job/newJob.js';
import { sheetContent } from '../job/sheetContent.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import type { Swap } from '../part/swap.js';
import { measuredParts } from '../reading/measuredParts.js';
import { withSwap } from '../selection/withSwap.js';
import { torqueSchema } from '../torque/fastener.js';
import { fastenerFigures, jobPassStates, jobStretches } from '../torque/tightenFacts.js';
import { jobAssembly } from './assemblyFacts.js';
import type { Check } from './assemblySchema.js';

const um = (value: number) => nanometres(value * 1000);
const at = (hour: number) => `2026-02-03T${String(hour).padStart(2, '0')}:00:00.000Z`;
const by = 'Wren';

function line(place: string, figures: object, source = 'book, p. 4') {
  return torqueSchema.parse({ fastener: place, steps: 'as given', place, tightening: figures, source });
}
const caps = line('main-inner', { school: 'stages', unit: 'Nm', final: 90, stages: 2 });
const bolts = line('rod', { school: 'stretch', unit: 'Nm', snug: 20, low: um(140), high: um(160) });

/** Three mains and two rods, thrust at the second main, taken by washers. */
function engine(parts: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
  return jobDocumentSchema.parse({
    ...job,
    endPlay: { ...job.endPlay, kind: 'washers' },
    fasteners: {
      main: { ...job.fasteners.main, figures: [caps] },
      rod: { ...job.fasteners.rod, figures: [bolts] },
    },
    ...parts,
  });
}

const made = (hour: number, more: Partial<Check> = {}): Check => ({
  state: 'done',
  words: '',
  photo: null,
  decision: null,
  by,
  at: at(hour),
  ...more,
});
const swap = (part: Swap['part'], one: string, other: string, hour: number): JobDocument['assembly']['swaps'] => ({
  s: { part, one, other, reason: 'numbers misread', by, at: at(hour) },
});
const all = (job: JobDocument) => jobAssembly(job, jobFacts(job, []).stations);
const keys = (job: JobDocument, station: string) => {
  const found = all(job).find((one) => one.station === station)!;
  return [...found.before, ...found.after].map(({ place }) => place.split('/')[1]);
};

describe('putting it together', () => {
  it('goes from the middle out, with the checks that the engine has', () => {
    const job = engine();
    expect(all(job).map(({ station }) => station)).toEqual(['M2', 'M1', 'M3', 'P1', 'P2']);
    expect(keys(job, 'M2')).toEqual([
      'dry',
      'lug',
      'groove',
      'hole',
      'washers',
      'face',
      'cap',
      'home',
      'line',
      'marked',
    ]);
    expect(keys(job, 'P1')).toEqual(['dry', 'lug', 'hole', 'face', 'covers', 'cap', 'side', 'marked']);
    const built = { grooved: 'both', lugs: false, dowels: true, caps: 'arrows', boltCovers: false } as const;
    const known = engine({ assembly: { ...job.assembly, built, face: { school: 'assembly', name: '' } } });
    expect(keys(known, 'M1')).toEqual(['dry', 'dowel', 'groove', 'hole', 'face', 'cap', 'home', 'marked']);
    expect(keys(known, 'P1')).toEqual(['dry', 'dowel', 'hole', 'face', 'cap', 'side', 'marked']);
    const words = all(known)[0]!.before.map(({ what }) => what);
    expect(words).toContain('Both shells grooved, grooves in line');
    expect(words).toContain('Cap of this station, its arrow to the front');
    expect(words).toContain('Running faces lubricated with assembly lubricant');
  });

  it('asks for a decision on what was found, and for what rested on swapped parts', () => {
    const job = engine();
    const found = made(9, { state: 'found', words: 'oil hole a third covered' });
    const checks = { 'M2/hole': found, 'M2/dry': made(9), 'M1/dry': made(9) };
    const asked = engine({ assembly: { ...job.assembly, checks } });
    expect(jobProgress(asked, []).stages.assembly).toBe('attention');
    const decided = { ...found, decision: { words: 'hole dressed', by, at: at(10) } };
    const settled = engine({ assembly: { ...job.assembly, checks: { ...checks, 'M2/hole': decided } } });
    expect(jobProgress(settled, []).stages.assembly).toBe('started');
    const swapped = engine({ assembly: { ...settled.assembly, swaps: swap('cap', 'M1', 'M3', 11) } });
    const outdated = all(swapped).flatMap(({ before }) =>
      before.filter((one) => one.isOutdated).map(({ place }) => place),
    );
    expect(outdated).toEqual(['M1/dry']);
    expect(jobProgress(swapped, []).stages.assembly).toBe('attention');
    const { tables, notes } = sheetContent(settled, []);
    expect(
      tables.find(({ title }) => title === 'Problems found in assembly')!.rows[0]!.cells.map(({ text }) => text),
    ).toEqual([
      'M2',
      'Oil hole of the shell over the oil hole of the block',
      'oil hole a third covered',
      'hole dressed',
      'Wren; Wren',
    ]);
    expect(notes.join(' ')).toMatch(/Not checked: M2 lugs in their notches.* M3, P1, P2 nothing of it/u);
  });

  it('prints stations that are in order in one row, and what is not by itself', () => {
    const job = engine();
    const checks = Object.fromEntries(
      all(job).flatMap(({ before, after }) => [...before, ...after].map(({ place }) => [place, made(9)])),
    );
    const turn = { how: 'even' as const, angle: null, breakaway: null, by, at: at(10) };
    const stations = all(job).map(({ station }) => station);
    const turns = Object.fromEntries(stations.map((one) => [one, turn]));
    const rows = (assembly: Partial<typeof job.assembly>) =>
      sheetContent(engine({ assembly: { ...job.assembly, checks, turns, ...assembly } }), [])
        .tables.find(({ title }) => title === 'Final assembly')!
        .rows.map(({ cells }) => cells.map(({ text }) => text).slice(0, 2));
    expect(rows({})).toEqual([['M2, M1, M3, P1, P2', 'all in order']]);
    const { 'M1/dry': _, ...without } = checks;
    expect(rows({ checks: without })).toEqual([
      ['M2, M3, P1, P2', 'all in order'],
      ['M1', expect.stringMatching(/^\d+ of \d+$/u)],
    ]);
    expect(rows({ turns: { ...turns, M3: { ...turn, how: 'stiff' } } }).map(([station]) => station)).toEqual([
      'M2, M1, P1, P2',
      'M3',
    ]);
  });

  it('opens the bore of a housing whose cap changed places, and its trial, but not those of others', () => {
    const readings = [1, 2, 3].map(
      (station): Reading => ({
        id: `00000000-0000-4000-8000-00000000000${station}`,
        feature: 'mainBore',
        station,
        slot: 'front',
        text: '64.010',
        unit: 'mm',
        setting: null,
        replaces: null,
        nm: um(64_010),
        by,
        at: at(8),
      }),
    );
    const job = engine({ assembly: { ...engine().assembly, swaps: swap('cap', 'M1', 'M3', 9) } });
    expect(measuredParts(job, readings, 'mainBore').map(({ isOutdated }) => isOutdated)).toEqual([true, false, true]);
    const halves = engine({ assembly: { ...engine().assembly, swaps: swap('upper', 'M1', 'M3', 9) } });
    expect(measuredParts(halves, readings, 'mainBore').some(({ isOutdated }) => isOutdated)).toBe(false);
  });
});

describe('parts that change places', () => {
  it('take the accepted choice along, so that what is predicted is of what is in', () => {
    const half = (wall: number) => ({ shell: String(wall), label: String(wall), wall: um(wall) });
    const station = (upper: number, lower: number, rod: number | null = null) => ({
      upper: half(upper),
      lower: half(lower),
      predicted: um(0),
      rod,
    });
    const shell = (wall: number) => ({
      family: 'main' as const,
      series: 'Osier',
      grade: String(wall),
      half: 'either' as const,
      wall: um(wall),
      stock: null,
      line: null,
    });
    const base = engine();
    const limit = { low: um(20), high: um(60), source: 'book, p. 1' };
    const job = engine({
      limits: { ...base.limits, mainClearance: limit },
      shells: { '1996': shell(1_996), '2000': shell(2_000) },
      rods: { '1': { mark: '', pin: 1 }, '2': { mark: '', pin: 2 } },
      choice: {
        at: at(7),
        by,
        stations: { M1: station(1_996, 1_996), M3: station(2_000, 2_000), P1: station(1, 1, 1), P2: station(1, 1, 2) },
      },
    });
    const read = (feature: Reading['feature'], slot: Reading['slot'], sizeUm: number) =>
      [1, 3].map(
        (place): Reading => ({
          id: `00000000-0000-4000-8000-0000000${feature === 'mainBore' ? 1 : 2}000${place}`,
          feature,
          station: place,
          slot,
          text: '',
          unit: 'mm',
          setting: null,
          replaces: null,
          nm: um(sizeUm),
          by,
          at: at(8),
        }),
      );
    const readings = [...read('mainBore', 'front', 64_010), ...read('mainJournal', 'front-0', 59_980)];
    const stamp = { reason: 'numbers misread', by, at: at(9) };
    const lower = withSwap(job, readings, 's', { part: 'lower', one: 'M1', other: 'M3', ...stamp });
    // By hand, µm: 64 010 − 59 980 − 1 996 − 2 000 = 34 at both now.
    expect(lower.choice!.stations.M1).toMatchObject({
      upper: { wall: um(1_996) },
      lower: { wall: um(2_000) },
      predicted: um(34),
    });
    expect(lower.choice!.stations.M3).toMatchObject({
      upper: { wall: um(2_000) },
      lower: { wall: um(1_996) },
      predicted: um(34),
    });
    expect(lower.assembly.swaps.s).toMatchObject({ part: 'lower' });
    const rods = withSwap(job, readings, 's', { part: 'rod', one: 'P1', other: 'P2', ...stamp });
    expect([rods.choice!.stations.P1!.rod, rods.choice!.stations.P2!.rod]).toEqual([2, 1]);
    expect([rods.rods['1']!.pin, rods.rods['2']!.pin]).toEqual([2, 1]);
    const caps = withSwap(job, readings, 's', { part: 'cap', one: 'M1', other: 'M3', ...stamp });
    expect(caps.choice).toEqual(job.choice);
    expect(jobDocumentSchema.safeParse(lower).success).toBe(true);
  });
});

describe('tightening', () => {
  it('takes the figures of other fasteners from their own maker, never from the data sheet', () => {
    const job = engine();
    const of = (main: Partial<JobDocument['fasteners']['main']>) =>
      fastenerFigures({ ...job, fasteners: { ...job.fasteners, main: { ...job.fasteners.main, ...main } } })[0]!.from;
    expect(of({})).toBe('own');
    expect(of({ figures: [] })).toBe('missing');
    const sheet = { torque: [caps] } as unknown as JobDocument['sheet'];
    const other = { ...job.fasteners.main, kind: 'other' as const, figures: [] };
    const both = { withRods: false, sheet, fasteners: { ...job.fasteners, main: other } };
    expect(fastenerFigures(both)).toEqual([{ family: 'main', from: 'missing', fasteners: [] }]);
    const maker = { ...other, kind: 'maker' as const };
    expect(fastenerFigures({ ...both, fasteners: { ...both.fasteners, main: maker } })[0]).toMatchObject({
      from: 'sheet',
    });
  });

  it('is asked for again where a cap changed places, and names bolts that stretched too far', () => {
    const pass = (target: string, hour: number) => ({ target, by, at: at(hour) });
    const stretch = (stretchUm: number) => ({ text: '', unit: 'mm' as const, nm: um(stretchUm), by, at: at(9) });
    const torque = {
      passes: {
        'main-inner/1': pass('45 N·m', 8),
        'main-inner/2': pass('90 N·m', 9),
        'rod 1/1': pass('snug, 20 N·m', 9),
        'rod 1/2': pass('stretch 0.140 mm to 0.160 mm', 9),
      },
      stretch: { 'rod/1/1': stretch(150), 'rod/1/2': stretch(166) },
    };
    const job = engine({ torque });
    expect(jobPassStates(job).map(({ doubt }) => doubt)).toEqual([null, null, null, null, null, null]);
    expect(jobStretches(job).flatMap(({ findings }) => findings)).toEqual([
      { id: 'rod/1/2', name: 'R1 bolt 2', stretch: um(166), kind: 'over', by: um(6) },
    ]);
    expect(jobProgress(job, []).stages.torque).toBe('attention');
    const swapped = { ...job, assembly: { ...job.assembly, swaps: swap('cap', 'M1', 'M2', 10) } };
    expect(jobPassStates(swapped).map(({ doubt }) => doubt)).toEqual([
      'parts-swapped',
      'parts-swapped',
      null,
      null,
      null,
      null,
    ]);
    // Out of order as well: with other parts it has to be done again all the same.
    const turned = { ...torque.passes, 'main-inner/1': pass('45 N·m', 9), 'main-inner/2': pass('90 N·m', 8) };
    const both = { ...swapped, torque: { ...torque, passes: turned } };
    expect(jobPassStates(both)[1]).toMatchObject({ doubt: 'parts-swapped' });
    const { tables } = sheetContent(job, []);
    expect(tables.find(({ title }) => title === 'Tightening, pass by pass')!.rows).toHaveLength(6);
    expect(tables.find(({ title }) => title === 'Stretch of bolts')!.rows[1]!.cells[2]!.text).toBe(
      'R1 bolt 2 stretched 0.006 mm too much: another bolt',
    );
  });
});
