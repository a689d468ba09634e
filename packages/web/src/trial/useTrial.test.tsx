// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useRunout } from '../runout/useRunout.js';
import { useTrial } from './useTrial.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const um = (value: number) => nanometres(Math.round(value * 1000));
const at = AT;
const id = '00000000-0000-4000-8000-0000000000ab';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 1' });
const half = (shell: string) => ({ shell, label: shell, wall: um(1_996) });
const shell = {
  family: 'main' as const,
  series: 'Osier',
  grade: 'Thin',
  half: 'either' as const,
  wall: um(1_996),
  stock: 9,
  line: null,
};
const document: JobDocument = {
  ...blank,
  limits: {
    ...blank.limits,
    mainBore: limit(64_000, 64_019),
    mainJournal: limit(59_970, 59_994),
    mainClearance: limit(25, 51),
  },
  shells: { thin: shell, other: { ...shell, grade: 'Other' } },
  choice: {
    at,
    by: 'Wren',
    stations: Object.fromEntries(
      ['M1', 'M2', 'M3'].map((name) => [
        name,
        { upper: half('thin'), lower: half('thin'), predicted: um(38), rod: null },
      ]),
    ),
  },
};

const readings: Reading[] = [1, 2, 3].flatMap((station) =>
  (['mainBore', 'mainJournal'] as const).map((feature): Reading => {
    const size = feature === 'mainBore' ? 64_010 + (station === 3 ? 4 : 0) : 59_980;
    return {
      id: `00000000-0000-4000-8000-00000000${feature === 'mainBore' ? 'b' : 'a'}00${station}`,
      feature,
      station,
      slot: feature === 'mainBore' ? 'front' : 'front-0',
      text: String(size / 1000),
      unit: 'mm',
      setting: null,
      nm: um(size),
      replaces: null,
      by: 'Wren',
      at,
    };
  }),
);

function open(changed: Partial<JobDocument> = {}) {
  jobCame(id, { ...document, ...changed }, readings);
  return renderHook(
    () => {
      const job = useJob(id)!;
      return { job, trial: useTrial(job), runout: useRunout(job) };
    },
    { wrapper: Around },
  );
}

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
});

describe('the trials of an engine', () => {
  it('begin at the station with the least room, with the halves that are accepted there', () => {
    const { result } = open();
    // By hand: 0.042 at M3, 0.009 to the high limit.
    expect([result.current.trial.first?.station, result.current.trial.open.station.id]).toEqual(['M3', 'M3']);
    act(() =>
      result.current.trial.add({ text: '0.043', mode: 'journal', setting: null, needle: 'bigger', nm: um(43) }),
    );
    const { trials } = result.current.job.document;
    expect(trials.M3).toMatchObject({ upper: { shell: 'thin', series: 'Osier' }, rod: null, isBelieved: false });
    expect(result.current.trial.open.state).toBe('read');
    expect(result.current.trial.first).toBeNull();
    // The next reading is taken as the one before was.
    expect(result.current.trial.mode).toBe('journal');
  });

  it('take single readings back, are confirmed or not; a new trial keeps the one before as evidence', () => {
    const { result } = open();
    act(() => result.current.trial.show('M1'));
    act(() =>
      result.current.trial.add({ text: '0.060', mode: 'journal', setting: null, needle: 'bigger', nm: um(60) }),
    );
    act(() =>
      result.current.trial.add({ text: '60.022', mode: 'bore', setting: null, needle: 'bigger', nm: um(60_022) }),
    );
    // Far from the other one: it is asked about, and counts once it is confirmed.
    expect(result.current.trial.open.station.tried?.measured).toMatchObject({ nominal: um(60), count: 1 });
    const [suspect] = result.current.trial.open.station.tried!.suspect;
    act(() => result.current.trial.confirmReading(suspect!));
    expect(result.current.trial.open.station.tried?.measured).toMatchObject({ nominal: um(51), mode: null });
    expect(result.current.trial.open.state).toBe('off');
    act(() => result.current.trial.confirm(true));
    expect(result.current.trial.open.state).toBe('read');
    const [first] = Object.keys(result.current.job.document.trials.M1!.readings);
    act(() => result.current.trial.remove(first!));
    expect(result.current.trial.open.station.tried?.measured?.nominal).toBe(um(42));
    act(() => result.current.trial.restart());
    const { readings, earlier } = result.current.job.document.trials.M1!;
    expect(readings).toEqual({});
    expect(earlier).toMatchObject([
      { isBelieved: true, readings: { [Object.keys(earlier![0]!.readings)[0]!]: { nm: um(60_022) } } },
    ]);
    expect(earlier![0]!.madeOf).toMatchObject({ fasteners: { kind: 'unknown' } });
  });

  it('need accepted halves; once others are accepted, the next reading is of those, and the trial before stays', () => {
    const bare = open({ choice: null });
    act(() =>
      bare.result.current.trial.add({ text: '0.04', mode: 'journal', setting: null, needle: 'bigger', nm: um(40) }),
    );
    expect(bare.result.current.job.document.trials).toEqual({});
    const stations = { ...document.choice!.stations, M3: { ...document.choice!.stations.M3!, upper: half('other') } };
    const trials = { M3: { ...tried(), at } };
    const { result } = open({ trials, choice: { ...document.choice!, stations } });
    act(() => result.current.trial.show('M3'));
    expect(result.current.trial.open.state).toBe('swapped');
    act(() =>
      result.current.trial.add({ text: '0.043', mode: 'journal', setting: null, needle: 'bigger', nm: um(43) }),
    );
    const { M3 } = result.current.job.document.trials;
    expect([M3!.upper.shell, M3!.earlier!.map(({ upper }) => upper.shell)]).toEqual(['other', ['thin']]);
  });

  it('hold no more once fasteners that had a name are others; a first name changes nothing', () => {
    const { result } = open({ trials: { M3: tried() } });
    act(() => result.current.trial.setFasteners('main', { name: 'cap bolts' }));
    expect(result.current.job.document.fasteners.main).toMatchObject({ name: 'cap bolts', since: null });
    expect(result.current.trial.stations[2]!.state).toBe('read');
    act(() => result.current.trial.setFasteners('main', { name: 'cap bolts' }));
    expect(result.current.trial.stations[2]!.state).toBe('read');
    act(() => result.current.trial.setFasteners('main', { name: 'studs' }));
    expect(result.current.trial.stations[2]!.state).toBe('void');
  });

  it('hold while something more is said of their fasteners for the first time', () => {
    const other = open({ trials: { M3: tried() } }).result;
    act(() => other.current.trial.setFasteners('main', { name: 'cap bolts' }));
    act(() => other.current.trial.setFasteners('main', { kind: 'other' }));
    act(() => other.current.trial.setFasteners('main', { torque: '55 N·m' }));
    expect(other.current.trial.stations[2]!.state).toBe('read');
    act(() => other.current.trial.setFasteners('main', { torque: '60 N·m' }));
    expect(other.current.trial.stations[2]!.state).toBe('void');
  });

  it('keep a strip once its diameter is known, and go on with it at the next station', () => {
    const { result } = open();
    act(() => result.current.trial.setStrip({ front: um(700) }));
    expect(result.current.job.document.strips).toEqual({});
    act(() => result.current.trial.setStrip({ diameter: um(200) }));
    act(() => result.current.trial.setStrip({ front: um(700) }));
    expect(result.current.job.document.strips.M3).toMatchObject({
      diameter: um(200),
      widths: { front: { text: '0.700', nm: um(700) }, rear: null },
    });
    act(() => result.current.trial.show('M1'));
    expect([result.current.trial.strip, result.current.trial.lastDiameter]).toEqual([null, um(200)]);
    act(() => result.current.trial.setStrip({ rear: um(650) }));
    expect(result.current.job.document.strips.M1).toMatchObject({
      diameter: um(200),
      widths: { rear: { nm: um(650) } },
    });
    act(() => result.current.trial.dropStrip());
    expect(Object.keys(result.current.job.document.strips)).toEqual(['M3']);
  });
});

function tried(): JobDocument['trials'][string] {
  const one = { ...half('thin'), series: 'Osier' };
  const reading = {
    text: '0.043',
    unit: 'mm' as const,
    mode: 'journal' as const,
    needle: 'bigger' as const,
    setting: null,
    nm: um(43),
    by: 'Wren',
    at,
  };
  return { upper: one, lower: one, rod: null, readings: { one: reading }, isBelieved: false, at, by: 'Wren' };
}

describe('the runout of a shaft', () => {
  it('is kept angle by angle, at the main in the middle first; an empty text takes a reading back', () => {
    const { result } = open();
    expect([result.current.runout.places, result.current.runout.place]).toEqual([['M2', 'flange'], 'M2']);
    act(() => void result.current.runout.put(0, '0'));
    act(() => void result.current.runout.put(180, '0.03'));
    expect(result.current.runout.read).toMatchObject({ place: 'M2', read: { tir: um(30) }, isOver: null });
    act(() => void result.current.runout.put(180, ''));
    expect(Object.keys(result.current.job.document.runout.mains.M2!)).toEqual(['0']);
    act(() => result.current.runout.show('flange'));
    act(() => void result.current.runout.put(90, '-0.01'));
    expect(result.current.job.document.runout.flange['90']).toMatchObject({ text: '-0.01', nm: -10_000 });
  });

  it('is read at so many angles as the fitter wants, evenly round the turn', () => {
    const { result } = open();
    act(() => result.current.runout.set({ steps: 12, startTooth: 'tooth with the dot' }));
    expect(result.current.runout.angles).toEqual([0, 30, 60, 90, 120, 150, 180, 210, 240, 270, 300, 330]);
    expect(result.current.job.document.runout.startTooth).toBe('tooth with the dot');
  });
});
