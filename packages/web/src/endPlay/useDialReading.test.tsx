// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';

// The best pieces are searched for in a worker, which is not of interest here.
import '../fit/testing/noWorker.js';

import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useDialReading } from './useDialReading.js';
import { useEndPlay } from './useEndPlay.js';

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000bf';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const document: JobDocument = {
  ...blank,
  limits: { ...blank.limits, endPlay: { low: um(100), high: um(150), source: 'book, p. 3' } },
};

function open(kind: 'washers' | 'rings' = 'washers') {
  jobCame(id, { ...document, endPlay: { ...document.endPlay, kind } }, []);
  return renderHook(
    () => {
      const work = useEndPlay(useJob(id)!);
      return { work, entry: useDialReading(id, work) };
    },
    { wrapper: Around },
  ).result;
}
const kept = (seen: ReturnType<typeof open>) =>
  Object.values(seen.current.work.endPlay.readings).map(({ moment, angle, text, nm }) => [moment, angle, text, nm]);

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
});

it('saves what was read with its moment and angle, and goes on with both', () => {
  const seen = open();
  act(() => seen.current.entry.setAngle('180'));
  act(() => seen.current.entry.setText('0.12'));
  act(() => seen.current.entry.keep());
  expect(kept(seen)).toEqual([['found', 180, '0.12', um(120)]]);
  expect(seen.current.entry).toMatchObject({ text: '', moment: 'found', angle: '180' });
});

it('says what cannot be read once it was tried, and at once what cannot be an end play', () => {
  const seen = open();
  act(() => seen.current.entry.setText('soon'));
  expect(seen.current.entry.fault).toBeNull();
  act(() => seen.current.entry.keep());
  expect(seen.current.entry.fault).toContain('soon');
  act(() => seen.current.entry.setText('-0.1'));
  expect(seen.current.entry.fault).toContain('cannot be negative');
  act(() => seen.current.entry.keep());
  expect(kept(seen)).toEqual([]);
});

it('asks about a figure far above the limits before it counts', () => {
  const seen = open();
  act(() => seen.current.entry.setText('1.2'));
  expect(seen.current.entry.likely!.map(({ nm }) => nm)).toContain(um(120));
  act(() => seen.current.entry.keep());
  expect(kept(seen)).toEqual([]);
  act(() => seen.current.entry.confirm());
  expect(seen.current.entry.likely).toBeNull();
  act(() => seen.current.entry.keep());
  expect(kept(seen)).toEqual([['found', 0, '1.2', um(1200)]]);
});

it('takes a gap without rings as it is: it has no limits', () => {
  const seen = open('rings');
  expect(seen.current.entry.moments).toEqual(['without', 'fitted']);
  act(() => seen.current.entry.setText('1.5'));
  expect(seen.current.entry.likely).toBeNull();
  act(() => seen.current.entry.keep());
  expect(kept(seen)).toEqual([['without', 0, '1.5', um(1500)]]);
});
