// @vitest-environment jsdom
import type { InstrumentView, RegisteredInstrument } from '@fettle/core';
import { newInstrument } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Around } from '../job/testing/openedJob.js';
import { type Asked, type Given, refusal, serverAnswers } from '../wire/testing/serverAnswers.js';
import { useInstrumentForm } from './useInstrumentForm.js';

let id: string;
let count = 0;
let asked: Asked[];
let answer: Given;
let saved: number;
const blank = newInstrument('outsideMicrometer', 'mm') as RegisteredInstrument;

function viewOf(revision: number, number: string): InstrumentView {
  return {
    id,
    revision,
    instrument: { ...blank, number },
    calibrations: [],
    checks: [],
    updatedBy: 'Teasel',
    updatedAt: '2026-01-02T03:04:05.000Z',
  };
}

beforeEach(() => {
  localStorage.clear();
  count += 1;
  id = `00000000-0000-4000-8000-0000000001${String(count).padStart(2, '0')}`;
  saved = 0;
  answer = [200, viewOf(9, 'M-9')];
  asked = serverAnswers(() => answer);
});
afterEach(() => void vi.unstubAllGlobals());

const open = (view: InstrumentView | null) =>
  renderHook(({ of }) => useInstrumentForm(id, of, () => (saved += 1)), {
    initialProps: { of: view },
    wrapper: Around,
  });

it('says what is missing once somebody tried to save, and sends nothing until it is there', async () => {
  const { result } = open(null);
  expect(result.current.faults).toEqual({});
  await act(async () => result.current.save());
  expect(Object.keys(result.current.faults)).toContain('number');
  expect([asked, saved]).toEqual([[], 0]);
});

it('saves what was typed from the revision that it was begun from', async () => {
  const { result } = open(viewOf(3, 'M-1'));
  expect(result.current).toMatchObject({ isTyped: false, isBehind: false, text: { number: 'M-1' } });
  act(() => result.current.set({ number: 'M-2' }));
  await act(async () => result.current.save());
  expect(asked).toMatchObject([{ method: 'PUT', body: { revision: 3, instrument: { number: 'M-2' } } }]);
  expect([result.current.isTyped, saved]).toEqual([false, 1]);
});

it('keeps what was typed where the server refuses it, and says why', async () => {
  answer = refusal(422, 'invalid', 'That number is another instrument’s.');
  const { result } = open(viewOf(1, 'M-1'));
  act(() => result.current.set({ number: 'M-2' }));
  await act(async () => result.current.save());
  expect(result.current.fault).toContain('another instrument’s');
  expect([result.current.text.number, saved]).toEqual(['M-2', 0]);
});

it('tells that somebody saved it meanwhile: the own change goes on from there, or is discarded', async () => {
  const { result, rerender } = open(viewOf(1, 'M-1'));
  act(() => result.current.set({ number: 'M-2' }));
  rerender({ of: viewOf(2, 'M-3') });
  expect([result.current.isBehind, result.current.text.number]).toEqual([true, 'M-2']);
  act(() => void result.current.goOn());
  expect(result.current.isBehind).toBe(false);
  await act(async () => result.current.save());
  expect(asked[0]!.body.revision).toBe(2);
  act(() => result.current.set({ number: 'M-4' }));
  act(() => result.current.discard());
  expect(result.current).toMatchObject({ isTyped: false, text: { number: 'M-3' } });
});
