// @vitest-environment jsdom
import { type InstrumentView, newInstrument, type RegisteredInstrument } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Around } from '../job/testing/openedJob.js';
import { type Asked, type Given, refusal, serverAnswers } from '../wire/testing/serverAnswers.js';
import { useCalibrationForm } from './useCalibrationForm.js';

let count = 0;
let asked: Asked[];
let answer: Given;
let done: number;

beforeEach(() => {
  localStorage.clear();
  count += 1;
  done = 0;
  answer = [200, viewHere()];
  asked = serverAnswers(() => answer);
});
afterEach(() => void vi.unstubAllGlobals());

function viewHere(): InstrumentView {
  return {
    id: `00000000-0000-4000-8000-0000000002${String(count).padStart(2, '0')}`,
    revision: 1,
    instrument: { ...(newInstrument('outsideMicrometer', 'mm') as RegisteredInstrument), number: 'M-1' },
    calibrations: [],
    checks: [],
    updatedBy: 'Teasel',
    updatedAt: '2026-01-02T03:04:05.000Z',
  };
}

function open() {
  const view = viewHere();
  return renderHook(() => useCalibrationForm(view, () => (done += 1)), { wrapper: Around }).result;
}

function fill(entry: ReturnType<typeof open>) {
  act(() => entry.current.set({ on: '2026-01-02', laboratory: 'Saltmarsh', certificate: 'K 12' }));
  act(() => entry.current.setPoint(0, { at: '50', error: '0.001', expanded: '0.002' }));
}

it('always has a line for the next point', () => {
  const entry = open();
  expect(entry.current.points).toHaveLength(1);
  act(() => entry.current.setPoint(0, { at: '50' }));
  expect(entry.current.points).toHaveLength(2);
  act(() => entry.current.setPoint(1, { at: '60' }));
  expect(entry.current.points.map(({ at }) => at)).toEqual(['50', '60', '']);
});

it('says of each point what is wrong, once somebody tried to save', async () => {
  const entry = open();
  act(() => entry.current.setPoint(0, { at: '50', error: 'little' }));
  expect(entry.current.faults).toBeNull();
  await act(async () => entry.current.save());
  expect(Object.keys(entry.current.faults!.points[0]!)).toEqual(expect.arrayContaining(['error', 'expanded']));
  expect(entry.current.faults!.boxes.on).toBe('Enter the day of the calibration.');
  expect(asked).toEqual([]);
});

it('is the same calibration however often it is sent', async () => {
  const entry = open();
  fill(entry);
  answer = refusal(503, 'unavailable', 'The database does not answer.');
  await act(async () => entry.current.save());
  expect(entry.current.fault).not.toBeNull();
  expect(done).toBe(0);
  answer = [200, viewHere()];
  await act(async () => entry.current.save());
  expect(done).toBe(1);
  const paths = asked.filter(({ method }) => method === 'PUT').map(({ path }) => path);
  expect(new Set(paths).size).toBe(1);
  expect(asked.at(-1)!.body).toMatchObject({
    calibration: { on: '2026-01-02', points: [{ at: 50_000_000, error: 1000, expanded: 2000, factor: 2 }] },
    file: null,
  });
});

it('takes a certificate as PDF or picture, sends it along, and refuses anything else', async () => {
  const entry = open();
  fill(entry);
  act(() => entry.current.attach(new File(['x'], 'list.txt', { type: 'text/plain' })));
  expect([entry.current.fileName, entry.current.fault]).toEqual([null, expect.stringContaining('“list.txt”')]);
  act(() => entry.current.attach(new File(['%PDF'], 'k12.pdf', { type: 'application/pdf' })));
  expect([entry.current.fileName, entry.current.fault]).toEqual(['k12.pdf', null]);
  await act(async () => entry.current.save());
  expect(asked.at(-1)!.body.file).toEqual({ name: 'k12.pdf', type: 'application/pdf', data: btoa('%PDF') });
});
