// @vitest-environment jsdom
import { assessReading, type JobDocument, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { useLatest } from '../base/useLatest.js';
import { NEXT_THING } from '../job/nextThing.js';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { store } from '../shell/store.js';
import { useNeedle } from './NeedleAsk.js';
import { useMeasuring } from './useMeasuring.js';
import { howTyped, type Place, useSaveReading } from './useSaveReading.js';

// Nothing is laid out here: what is to be in sight is seen in the tests of the whole page.
Element.prototype.scrollIntoView = () => {};

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const document: JobDocument = {
  ...blank,
  instruments: { ...blank.instruments, boreGauge: { ...blank.instruments.boreGauge, needle: 'bigger' } },
};
const id = '00000000-0000-4000-8000-0000000000aa';
const M1: Place = { feature: 'mainBore', station: 1, slot: 'front' };
const at = AT;

function standing(text: string, nm: number | null): Reading {
  const reading = {
    id: '00000000-0000-4000-8000-000000000b01',
    ...M1,
    text,
    unit: 'mm',
    setting: null,
    by: 'Wren',
    at,
  };
  return { ...reading, replaces: null, nm: nm === null ? null : nanometres(nm) } as Reading;
}

function open(readings: Reading[], changed: Partial<JobDocument> = {}) {
  jobCame(id, { ...document, ...changed }, readings);
  return renderHook(
    () => {
      const job = useJob(id)!;
      return { job, save: useSaveReading(useLatest(job), 'misread'), measuring: useMeasuring(job, 'mainBore') };
    },
    { wrapper: Around },
  );
}

const sent = () =>
  store.getState().saving.parcels.flatMap((parcel) => (parcel.kind === 'reading' ? [parcel.draft] : []));

beforeEach(() => {
  nothingWaits();
});

it('keeps what was typed to the letter, with the setting it was read against', () => {
  const setting = nanometres(62_000_000);
  const measuring = { ...document.measuring, setting: { ...document.measuring.setting, mainBore: setting } };
  const { result } = open([], { measuring });
  act(() => result.current.save(M1, '+2.5'));
  expect(sent()).toMatchObject([{ ...M1, text: '+2.5', unit: 'mm', setting, replaces: null }]);
  expect(result.current.job.readings).toMatchObject([{ nm: 62_025_000 }]);
});

it('sends nothing where nothing changed, and names the reading that it corrects', () => {
  const { result } = open([standing('62.003', 62_003_000)]);
  act(() => result.current.save(M1, '62.003'));
  expect(sent()).toEqual([]);
  act(() => result.current.save(M1, '62.004'));
  expect(sent()).toMatchObject([{ text: '62.004', replaces: '00000000-0000-4000-8000-000000000b01' }]);
  act(() => result.current.save(M1, ''));
  expect(result.current.job.readings).toMatchObject([{ text: '', nm: null }]);
});

it('says how a reading was taken, and why it takes the place of another', () => {
  const measuring = {
    ...document.measuring,
    celsius: { ...document.measuring.celsius, mainBore: 27 },
    gaugeCelsius: 21,
  };
  const boreGauge = { ...document.instruments.boreGauge, name: 'gauge 7', needle: 'smaller' as const };
  const changed = { measuring, instruments: { ...document.instruments, boreGauge } };
  const { result } = open([standing('62.003', 62_003_000)], changed);
  act(() => result.current.save(M1, '62.004'));
  const taken = { instrument: 'gauge 7', needle: 'smaller', celsius: 27, gaugeCelsius: 21 };
  expect(sent()).toMatchObject([{ text: '62.004', taken: { ...taken, reason: 'misread' } }]);
  // What is read for the first time takes nobody's place; a journal is not read with the bore gauge.
  act(() => result.current.save({ feature: 'mainJournal', station: 2, slot: 'front-0' }, '59.981'));
  expect(sent()[1]!.taken).toEqual({ instrument: '', needle: 'bigger', celsius: null, gaugeCelsius: null, reason: '' });
});

it('sends a deviation once more when the setting that makes a size of it has come', () => {
  const { result } = open([standing('+2.5', null)]);
  act(() => result.current.save(M1, '+2.5'));
  expect(sent()).toEqual([]);
  act(() => result.current.save(M1, '+2.5', nanometres(62_000_000)));
  expect(sent()).toMatchObject([{ text: '+2.5', setting: 62_000_000 }]);
});

it('keeps a deviation as typed until it is said which way the needle goes, and then counts it by that', () => {
  const setting = nanometres(62_000_000);
  const measuring = { ...document.measuring, setting: { ...document.measuring.setting, mainBore: setting } };
  jobCame(id, { ...blank, measuring }, []);
  const { result } = renderHook(
    () => {
      const job = useJob(id)!;
      const latest = useLatest(job);
      return { job, save: useSaveReading(latest), say: useNeedle(job, latest) };
    },
    { wrapper: Around },
  );
  act(() => result.current.save(M1, '+2.5'));
  act(() => result.current.save({ ...M1, station: 2 }, '62.004'));
  expect(result.current.job.readings).toMatchObject([{ text: '+2.5', nm: null }, { nm: 62_004_000 }]);
  act(() => result.current.say('smaller'));
  expect(result.current.job.document.instruments.boreGauge.needle).toBe('smaller');
  const now = [...result.current.job.readings].sort((one, other) => one.station - other.station);
  expect(now).toMatchObject([
    { text: '+2.5', nm: 61_975_000 },
    { text: '62.004', nm: 62_004_000 },
  ]);
});

it('goes along the empty boxes in the order of measuring, never into a filled one, and says when none is left', () => {
  const { result } = open([]);
  const boxes = new Map<string, HTMLInputElement>();
  const { slots } = result.current.measuring;
  for (const slot of slots) {
    for (const station of [1, 2, 3]) {
      const input = window.document.createElement('input');
      window.document.body.append(input);
      boxes.set(`${slot}${station}`, input);
      result.current.measuring.acts.hold({ feature: 'mainBore', station, slot }, { input, give: () => {} });
    }
  }
  const focused = () => [...boxes].find(([, input]) => input === window.document.activeElement)?.[0];
  const last = { feature: 'mainBore', station: 3, slot: slots[0]! } as const;
  result.current.measuring.acts.step(last, 'next');
  expect(focused()).toBe(`${slots[1]}1`);
  result.current.measuring.acts.step({ ...last, station: 1, slot: slots[1]! }, 'up');
  expect(focused()).toBe(`${slots[0]}1`);
  const end = { ...last, slot: slots.at(-1)! };
  boxes.get(`${end.slot}3`)!.focus();
  // From the last one on to the first that is empty.
  for (const [key, input] of boxes) input.value = key === `${slots[0]}2` ? '' : '62.003';
  act(() => result.current.measuring.acts.step(end, 'next'));
  expect(focused()).toBe(`${slots[0]}2`);
  boxes.get(`${slots[0]}2`)!.value = '62.004';
  boxes.get(`${end.slot}3`)!.focus();
  act(() => result.current.measuring.acts.step(end, 'next'));
  expect(focused()).toBeUndefined();
  expect(result.current.measuring.status).toBe('full');
  // A figure that is typed while a button has the focus is not swallowed silently.
  const button = window.document.createElement('button');
  window.document.body.append(button);
  act(() => void button.dispatchEvent(new KeyboardEvent('keydown', { key: '6', bubbles: true })));
  expect(result.current.measuring.status).toBe('lost');
  button.remove();
  // Where there is a next thing to do, Enter leads on to it.
  const next = window.document.createElement('button');
  next.id = NEXT_THING;
  window.document.body.append(next);
  boxes.get(`${end.slot}3`)!.focus();
  result.current.measuring.acts.step(end, 'next');
  expect(window.document.activeElement).toBe(next);
  next.remove();
});

describe('a figure that was typed while the engine had another unit', () => {
  const inches = { unit: 'in' as const };

  it('keeps its size and is judged in the unit it was typed in', () => {
    const { result } = open([standing('62.003', 62_003_000)], inches);
    const [reading] = result.current.job.readings;
    const how = howTyped(reading!, M1, '62.003', false);
    expect(how).toMatchObject({ unit: 'mm' });
    expect(assessReading('62.003', null, 'mainBore', result.current.job.document, [], 1, how)).toMatchObject({
      nm: 62_003_000,
    });
  });

  it('typed again under the new unit is another size, and is sent', () => {
    const { result } = open([standing('2.448', 2_448_000)], inches);
    act(() => result.current.save(M1, '2.448', null));
    expect(sent()).toMatchObject([{ text: '2.448', unit: 'in' }]);
    expect(result.current.job.readings).toMatchObject([{ nm: 62_179_200 }]);
  });
});
