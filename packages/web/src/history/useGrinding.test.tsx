// @vitest-environment jsdom
import { type JobDocument, nanometres, newEngineType, newJob, type Reading, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Around, sizeRead } from '../job/testing/openedJob.js';
import { serverAnswers } from '../wire/testing/serverAnswers.js';
import { useGrinding } from './useGrinding.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const um = (value: number) => nanometres(value * 1000);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 1' });
const type = newEngineType('Rush Twin', 'mm', usual.layout);
const document: JobDocument = {
  ...blank,
  limits: { ...blank.limits, mainJournal: limit(59_970, 59_994) },
  sheet: {
    ...type,
    main: {
      ...type.main,
      undersizes: [
        { name: '0.25', amount: um(250), journal: limit(59_720, 59_744), grades: [] },
        { name: '0.50', amount: um(500), journal: limit(59_470, 59_494), grades: [] },
      ],
    },
  },
};
const readings = [59_985, 59_850, 59_980].map((size, at) => sizeRead('mainJournal', at + 1, size));

let count = 0;
beforeEach(() => {
  localStorage.clear();
  count += 1;
  serverAnswers(() => [200, []]);
});
afterEach(() => void vi.unstubAllGlobals());

const open = (read: readonly Reading[] = readings) =>
  renderHook(() => useGrinding({ id: `engine ${count}`, document, readings: read }, 'main'), { wrapper: Around })
    .result;

it('plans nothing until every journal is read', () => {
  const plan = open(readings.slice(1));
  expect(plan.current.unread).toEqual(['M1']);
  expect(plan.current.answer).toBeNull();
});

it('says what is wrong with a box, and plans nothing while one is', () => {
  const plan = open();
  act(() => plan.current.set({ perJournal: '-5', cleanUp: '-0.01', pairs: { '0.25': 'two' } }));
  expect(Object.fromEntries(plan.current.faults)).toEqual({
    perJournal: 'Enter a price of 0 or more, or leave blank.',
    cleanUp: 'Enter 0 or more.',
    'pairs 0.25': 'Enter a whole number, or leave blank.',
  });
  expect(plan.current.answer).toBeNull();
});

it('counts what was typed of pairs and prices before what the stock says', () => {
  const plan = open();
  expect(plan.current.sizes.map(({ name }) => name)).toEqual(['', '0.25', '0.50']);
  act(() => plan.current.set({ pairs: { '0.25': '3' }, prices: { '0.25': '12.5' } }));
  expect(plan.current.sizes.find(({ name }) => name === '0.25')).toMatchObject({ onShelf: 3, price: 12.5 });
  expect(plan.current.answer).not.toBeNull();
});

it('keeps what was typed on this device', () => {
  const plan = open();
  act(() => plan.current.set({ setUp: '40' }));
  expect(open().current.text.setUp).toBe('40');
});
