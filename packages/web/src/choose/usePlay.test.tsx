// @vitest-environment jsdom
import { nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { usePlay } from './usePlay.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000ac';
const document = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);

function open() {
  jobCame(id, document, []);
  const { result } = renderHook(
    () => {
      const job = useJob(id)!;
      return { job, play: usePlay(job) };
    },
    { wrapper: Around },
  );
  return result;
}

beforeEach(nothingWaits);

it('locks and exclusions are kept by station, and one that asks for nothing any more is none', () => {
  const seen = open();
  act(() => seen.current.play.wish('M1', { upper: 'a' }, 'locked'));
  act(() => seen.current.play.wish('M1', { noShells: ['b'] }, 'ruled out'));
  expect(seen.current.job.document.wishes).toEqual({
    M1: { upper: 'a', lower: null, noShells: ['b'], unmixed: false },
  });
  expect(seen.current.play.wishAt('M2')).toMatchObject({ upper: null, noShells: [] });
  act(() => seen.current.play.wish('M1', { upper: null, noShells: [] }, 'unlocked'));
  expect(seen.current.job.document.wishes).toEqual({});
});

it('a rod that is locked on a pin frees the one that was locked there', () => {
  const seen = open();
  const pins = () => Object.entries(seen.current.job.document.rods).map(([rod, { pin }]) => [rod, pin]);
  act(() => seen.current.play.lockRod(1, 2));
  act(() => seen.current.play.lockRod(2, 2));
  expect(pins()).toEqual([
    ['1', null],
    ['2', 2],
  ]);
  act(() => seen.current.play.lockRod(2, null));
  expect(pins().every(([, pin]) => pin === null)).toBe(true);
});

it('everything is unlocked at once, an added target is taken away again, a remedy is done', () => {
  const seen = open();
  act(() => seen.current.play.wish('M2', { unmixed: true }, 'not mixed'));
  act(() => seen.current.play.lockRod(1, 1));
  act(() => seen.current.play.releaseAll());
  expect(seen.current.job.document).toMatchObject({ wishes: {}, rods: { 1: { pin: null } } });
  act(() => seen.current.play.setExtra('M3', nanometres(5_000)));
  expect(seen.current.job.document.rules.extras).toEqual({ M3: 5_000 });
  act(() => seen.current.play.setExtra('M3', null));
  expect(seen.current.job.document.rules.extras).toEqual({});
  act(() => seen.current.play.remedy((old) => ({ ...old, rules: { ...old.rules, mixedHalves: false } }), 'rule'));
  expect(seen.current.job.document.rules.mixedHalves).toBe(false);
});
