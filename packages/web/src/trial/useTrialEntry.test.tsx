// @vitest-environment jsdom
import { nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useTrial } from './useTrial.js';
import { useTrialEntry } from './useTrialEntry.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const um = (value: number) => nanometres(value * 1000);
const id = '00000000-0000-4000-8000-0000000000bd';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const half = { shell: 'thin', label: 'Thin', wall: um(1_996) };

function open() {
  const stations = { M1: { upper: half, lower: half, predicted: um(38), rod: null } };
  jobCame(id, { ...blank, choice: { at: AT, by: 'Wren', stations } }, []);
  return renderHook(
    () => {
      const work = useTrial(useJob(id)!);
      return { work, entry: useTrialEntry(id, work) };
    },
    { wrapper: Around },
  ).result;
}

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
});

const readings = (seen: ReturnType<typeof open>) =>
  Object.values(seen.current.work.document.trials.M1?.readings ?? {}).map(({ text, mode, setting, nm }) => ({
    text,
    mode,
    setting,
    nm,
  }));

it('reads a needle from the setting size, asks which way it goes, and says the way in words', () => {
  const seen = open();
  act(() => seen.current.work.setMode('setting'));
  act(() => seen.current.entry.zero.setText('60'));
  act(() => seen.current.entry.typed.setText('+2'));
  expect(seen.current.entry.gaugeToAsk).not.toBeNull();
  act(() => seen.current.entry.keep());
  expect(readings(seen)).toEqual([]);
  act(() => seen.current.work.sayNeedle('smaller'));
  expect(seen.current.entry.gaugeToAsk).toBeNull();
  // By hand: on this gauge + is smaller, + 2 hundredths: 60.00 − 0.02 = 59.98 mm.
  expect(seen.current.entry.hint).toMatch(/^Bore 59\.98.*smaller than the setting$/u);
  act(() => seen.current.entry.keep());
  expect(readings(seen)).toEqual([{ text: '+2', mode: 'setting', setting: um(60_000), nm: um(59_980) }]);
  expect([seen.current.entry.typed.text, seen.current.entry.zero.text]).toEqual(['', '60.000']);
});

it('reads the clearance itself where the gauge was zeroed on the journal', () => {
  const seen = open();
  act(() => seen.current.work.setMode('journal'));
  act(() => seen.current.entry.typed.setText('0.041'));
  expect(seen.current.entry.hint).toMatch(/^Clearance 0\.041/u);
  act(() => seen.current.entry.keep());
  expect(readings(seen)).toEqual([{ text: '0.041', mode: 'journal', setting: null, nm: um(41) }]);
});

it('says what cannot be read once it was tried, and keeps it in its box', () => {
  const seen = open();
  act(() => seen.current.work.setMode('bore'));
  act(() => seen.current.entry.typed.setText('about 60'));
  expect(seen.current.entry.fault).toBeNull();
  act(() => seen.current.entry.keep());
  expect(seen.current.entry.fault).not.toBeNull();
  expect([readings(seen), seen.current.entry.typed.text]).toEqual([[], 'about 60']);
  act(() => seen.current.work.setMode('setting'));
  act(() => seen.current.entry.zero.setText('x'));
  expect(seen.current.entry.zeroFault).not.toBeNull();
});
