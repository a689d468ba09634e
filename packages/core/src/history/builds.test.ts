import { describe, expect, it } from 'vitest';
import { blankStation } from '../cameApart/cameApartPart.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { sheetContent } from '../job/sheetContent.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature, Slot } from '../part/feature.js';
import type { Reading, ReadingReason } from '../part/reading.js';
import { nextBuild } from './nextBuild.js';
import { shellWorn, thenAndNow, wearRate, wornMost } from './thenAndNow.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const ID = '00000000-0000-4000-8000-0000000000aa';
const AT = '2022-03-04T08:00:00.000Z';
const SIGNED = { revision: 2, hash: 'a'.repeat(64), at: AT };

let made = 0;
const newId = () => {
  made += 1;
  return `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
};

function read(feature: Feature, station: number, size: number, reason?: ReadingReason): Reading {
  const slot: Slot = feature === 'mainBore' ? 'front' : 'front-0';
  const taken = { instrument: '', needle: null, celsius: null, gaugeCelsius: null, reason: reason ?? ('' as const) };
  const [text, nm] = [String(size / 1000), um(size)];
  const stamp = { unit: 'mm' as const, setting: null, replaces: null, by: 'Teasel', at: AT };
  return { id: newId(), feature, station, slot, text, nm, ...stamp, ...(reason ? { taken } : {}) };
}

function built(): { readonly job: JobDocument; readonly readings: Reading[] } {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const blank = newJob('Rush Twin · first', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const half = (wall: number) => ({ shell: 'thin', label: `Osier ${wall}`, wall: um(wall) });
  const station = { upper: half(1_996), lower: half(1_999), predicted: um(35), rod: null };
  const shell = { family: 'main', series: 'Osier', grade: 'thin', half: 'either', wall: um(1_996), stock: 4, line: ID };
  const job = jobDocumentSchema.parse({
    ...blank,
    serial: 'RT 0301',
    shells: { thin: shell },
    marks: { mainBore: { text: 'A B A', first: 'front' } },
    rods: { 1: { mark: 'C', pin: 1 } },
    choice: { at: AT, by: 'Teasel', stations: { M1: station } },
    endPlay: {
      ...blank.endPlay,
      aim: um(100),
      readings: { one: { moment: 'fitted', angle: 0, text: '0.1', unit: 'mm', nm: um(102), by: 'Teasel', at: AT } },
    },
  });
  return {
    job,
    readings: [1, 2, 3].flatMap((at) => [read('mainBore', at, 64_010), read('mainJournal', at, 59_980 + at)]),
  };
}

function next(): JobDocument {
  const { job, readings } = built();
  const made = nextBuild(job, readings, { id: ID, signed: SIGNED }, 'Rush Twin · again', newId);
  return jobDocumentSchema.parse(JSON.parse(JSON.stringify(made)));
}

describe('a build of an engine that comes back', () => {
  it('has the sheet, the marks and the rods of the last, and nothing that was measured, fitted or checked', () => {
    const job = next();
    expect(job).toMatchObject({
      name: 'Rush Twin · again',
      serial: 'RT 0301',
      marks: { mainBore: { text: 'A B A' } },
      rods: { 1: { mark: 'C', pin: null } },
      choice: null,
      trials: {},
      endPlay: { aim: um(100), readings: {}, choice: null },
    });
    expect(Object.values(job.shells)).toEqual([expect.objectContaining({ grade: 'thin', stock: null, line: null })]);
  });

  it('keeps what the last one left, with its signed sheet: what becomes of that later changes nothing', () => {
    const { before } = next();
    expect(before).toMatchObject({
      job: ID,
      name: 'Rush Twin · first',
      signed: SIGNED,
      run: null,
      endPlay: um(102),
      sizes: { mainBore: { 1: { nominal: um(64_010) } }, mainJournal: { 3: { nominal: um(59_983) } } },
    });
    // By hand: 64.010 − 59.981 − 1.996 − 1.999.
    expect(before!.fitted.M1).toMatchObject({ clearance: um(34), isMeasured: false, rod: null });
    expect(Object.keys(before!.fitted)).toEqual(['M1']);
  });

  it('names the build before on its sheet', () => {
    const { facts } = sheetContent(next(), []);
    expect(facts.find(({ label }) => label === 'Built before')?.text).toBe(
      `Rush Twin · first, sheet 2, ${'a'.repeat(12)}`,
    );
    expect(facts.find(({ label }) => label === 'Serial number')?.text).toBe('RT 0301');
  });
});

describe('then and now', () => {
  const compared = (readings: readonly Reading[], job = next()) =>
    new Map(thenAndNow(jobFacts(job, readings)).map((one) => [`${one.feature} ${one.number}`, one]));

  it('a journal that is smaller, and a bore that is larger, have worn; what readings cannot tell is not seen', () => {
    const now = compared([read('mainJournal', 1, 59_965), read('mainJournal', 2, 59_980), read('mainBore', 1, 64_014)]);
    expect(now.get('mainJournal 1')).toMatchObject({ was: um(59_981), worn: um(16), isWorn: true });
    expect(now.get('mainJournal 2')).toMatchObject({ worn: um(2), isWorn: false });
    expect(now.get('mainBore 1')).toMatchObject({ worn: um(4) });
    expect(now.get('mainJournal 3')).toMatchObject({ now: null, worn: null, isWorn: false });
    // Micrometers of two builds: √2 times what one reading of one is known to, with a factor of 2.
    const { known } = now.get('mainJournal 1')!;
    const one = Math.hypot(500, 1000, 1000, 1000 / Math.sqrt(12));
    expect(Math.abs(known! - 2 * Math.SQRT2 * one)).toBeLessThan(2);
  });

  it('a part that was machined since has not worn', () => {
    const now = compared([read('mainJournal', 1, 59_900, 'part machined since')]);
    expect(now.get('mainJournal 1')).toMatchObject({ isMachined: true, worn: null, isWorn: false });
    expect(wornMost([...now.values()], 'journal')).toBeNull();
  });

  it('names the one that has worn most of its kind', () => {
    const now = compared([1, 2, 3].map((at) => read('mainJournal', at, 59_975 - 5 * at)));
    expect(wornMost([...now.values()], 'journal')?.name).toBe('M3');
    expect(wornMost([...now.values()], 'housing')).toBeNull();
  });

  it('has nothing to say of an engine that was not built here', () => {
    expect(compared([read('mainJournal', 1, 59_965)], { ...next(), before: null }).size).toBe(0);
  });

  it('of a shell: its wall then less the one it came out with', () => {
    const job = next();
    const wall = { text: '1.99', unit: 'mm' as const, nm: um(1_990), by: 'Teasel', at: AT };
    const old = blankStation({ by: 'Teasel', at: AT });
    const apart = { ...job.cameApart, stations: { M1: { ...old, upper: { ...old.upper, wall } } } };
    expect(shellWorn(job.before, { cameApart: apart }, 'M1', 'upper')).toBe(um(6));
    expect(shellWorn(job.before, { cameApart: apart }, 'M1', 'lower')).toBeNull();
    expect(shellWorn(job.before, { cameApart: apart }, 'M2', 'upper')).toBeNull();
  });

  it('by what it ran', () => {
    expect(wearRate(6_000, { value: 2_000, unit: 'h' })).toBe(3_000);
    expect(wearRate(10_000, { value: 250_000, unit: 'km' })).toBe(4_000);
  });
});
