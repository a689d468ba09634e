// @vitest-environment jsdom
import { nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';

// The best pieces are searched for in a worker, which is not of interest here.
import '../fit/testing/noWorker.js';

import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useCrush } from './useCrush.js';

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000ad';
const blank = newJob('Burr 2', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const document = {
  ...blank,
  limits: { ...blank.limits, crush: { low: um(50), high: um(150), source: 'book, p. 3' } },
  crush: { ...blank.crush, kind: 'plain' as const },
};

function open() {
  jobCame(id, document, []);
  const { result } = renderHook(
    () => {
      const job = useJob(id)!;
      return { job, crush: useCrush(job) };
    },
    { wrapper: Around },
  );
  return result;
}

beforeEach(nothingWaits);

it('opens the first joint, then the one that was asked for, and judges each by its feelers', () => {
  const seen = open();
  expect(seen.current.crush.stations.map(({ station, state }) => [station, state])).toEqual([
    ['M1', null],
    ['M2', null],
    ['M3', null],
  ]);
  expect([seen.current.crush.station, seen.current.crush.read]).toEqual(['M1', null]);
  act(() => seen.current.crush.open('M2'));
  act(() => seen.current.crush.setSide('left', { go: um(90), noGo: um(100) }));
  act(() => seen.current.crush.setSide('right', { go: um(90), noGo: um(100) }));
  expect([seen.current.crush.station, seen.current.crush.state]).toEqual(['M2', 'inside']);
  expect(seen.current.job.document.crush.joints.M2!.left).toMatchObject({ go: 90_000, noGo: 100_000 });
  expect(seen.current.crush.stations[1]!.state).toBe('inside');
});

it('what the accepted shims are is there once they are put in, and what was read before is gone', () => {
  const seen = open();
  act(() => seen.current.crush.setSide('left', { go: um(20), noGo: um(30), shim: um(100) }));
  act(() =>
    seen.current.crush.set({
      choice: {
        at: '2026-01-02T03:04:05.000Z',
        by: 'Wren',
        chosen: [{ place: 'left', piece: 'p', label: '0.15', thickness: um(150), count: 1 }],
        predicted: um(70),
        shift: um(0),
      },
    }),
  );
  act(() => seen.current.crush.putIn());
  const { left, right } = seen.current.job.document.crush.joints.M1!;
  expect([left, right]).toEqual([
    { go: null, noGo: null, shim: 150_000 },
    { go: null, noGo: null, shim: null },
  ]);
  act(() => seen.current.crush.withdraw());
  expect(seen.current.job.document.crush.joints.M1!.choice).toBeNull();
  act(() => seen.current.crush.setAll({ aim: um(100) }));
  expect(seen.current.job.document.crush.aim).toBe(100_000);
});
