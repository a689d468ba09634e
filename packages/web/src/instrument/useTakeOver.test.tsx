// @vitest-environment jsdom
import {
  type InstrumentView,
  instrumentInUse,
  type JobDocument,
  nanometres,
  newInstrument,
  newJob,
  usualLayout,
} from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useTakeOver } from './useTakeOver.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000aa';
const GAUGE = '00000000-0000-4000-8000-0000000000b3';
const document: JobDocument = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const check = (last: number) => ({
  id: `00000000-0000-4000-8000-00000000000${last}`,
  at: `2026-11-30T0${last}:00:00.000Z`,
  by: 'Wren',
  standard: null,
  shown: nanometres(0),
  isReset: false,
});
const view = (revision: number, checks: InstrumentView['checks']): InstrumentView => ({
  id: GAUGE,
  revision,
  instrument: { ...newInstrument('boreGauge', 'mm'), number: '3', needle: 'smaller' },
  calibrations: [],
  checks,
  updatedAt: AT,
  updatedBy: 'Wren',
});

function open() {
  jobCame(id, document, []);
  return renderHook(
    () => {
      const job = useJob(id)!;
      return { job, ...useTakeOver(job) };
    },
    { wrapper: Around },
  );
}

beforeEach(() => nothingWaits());

it('keeps a copy of an instrument, with what counts for its readings', () => {
  const { result } = open();
  act(() => result.current.takeOver(view(1, [check(1), check(2)])));
  act(() => result.current.takeOver(view(2, [check(2), check(3)])));
  const known = result.current.job.document.registered[GAUGE]!;
  // Nothing was read with it yet: only the last check counts for what will be.
  expect([known.revision, known.checks.map(({ at }) => at.slice(11, 13))]).toEqual([2, ['03']]);
  // Taken over is not chosen.
  expect(instrumentInUse(result.current.job.document, 'mainBore')).toBe('boreGauge');
});

it('goes back to the engine’s own instrument', async () => {
  const { result } = open();
  act(() => result.current.takeOver(view(1, [])));
  await act(() => result.current.choose('mainBore', null));
  expect(result.current.job.document.using).toEqual({});
});
