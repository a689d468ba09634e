// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';

// The best pieces are searched for in a worker, which is not of interest here.
import '../fit/testing/noWorker.js';

import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useEndPlay } from './useEndPlay.js';

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000ae';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const document: JobDocument = {
  ...blank,
  limits: { ...blank.limits, endPlay: { low: um(100), high: um(150), source: 'book, p. 3' } },
};

function open(parts: Partial<JobDocument['endPlay']> = {}) {
  jobCame(id, { ...document, endPlay: { ...document.endPlay, kind: 'washers', ...parts } }, []);
  const { result } = renderHook(
    () => {
      const job = useJob(id)!;
      return { job, work: useEndPlay(job) };
    },
    { wrapper: Around },
  );
  return result;
}

beforeEach(nothingWaits);

it('readings come in as found, then as seated, and are judged: the low limit on the smallest angle', () => {
  const seen = open();
  expect([seen.current.work.moment, seen.current.work.aim, seen.current.work.now]).toEqual(['found', 125_000, null]);
  act(() => seen.current.work.addReading('seated', 0, ' 0.093 ', um(93)));
  act(() => seen.current.work.addReading('seated', 180, '0.117', um(117)));
  expect(seen.current.work.moment).toBe('seated');
  // By hand: the mean of 0.105 is inside, 0.093 is not.
  expect(seen.current.work.verdict).toMatchObject({ state: 'tight' });
  const [first] = Object.entries(seen.current.job.document.endPlay.readings);
  expect(first![1]).toMatchObject({ text: '0.093', nm: 93_000, by: 'Unnamed', angle: 0 });
  act(() => seen.current.work.removeReading(first![0]));
  expect(Object.keys(seen.current.job.document.endPlay.readings)).toHaveLength(1);
});

it('a stack of rings begins with its gap, which is no end play to be judged', () => {
  const seen = open({ kind: 'rings' });
  expect(seen.current.work.moment).toBe('without');
  act(() => seen.current.work.addReading('without', 0, '1.50', um(1_500)));
  expect([seen.current.work.now!.mean, seen.current.work.verdict]).toEqual([um(1_500), null]);
  act(() => seen.current.work.set({ aim: um(110) }));
  expect(seen.current.work.aim).toBe(um(110));
  expect(seen.current.work).toMatchObject({ inHand: null, outcome: null, isOwn: false });
});

it('says that nothing in stock fits once the stock was read, not before', () => {
  const without = open();
  act(() => without.current.work.addReading('seated', 0, '0.060', um(60)));
  // No washers of anybody's: there is nothing to wait for.
  expect(without.current.work.steps.map(({ kind }) => kind)).toContain('stop');
  const line = '00000000-0000-4000-8000-0000000000af';
  const washer = { kind: 'washer' as const, name: 'Thin', thickness: um(2_310), stock: null, line };
  const endPlay = { ...document.endPlay, kind: 'washers' as const };
  jobCame(id, { ...document, endPlay, pieces: { [line]: washer } as JobDocument['pieces'] }, []);
  const { result } = renderHook(() => useEndPlay(useJob(id)!), { wrapper: Around });
  act(() => result.current.addReading('seated', 0, '0.060', um(60)));
  expect(result.current.steps.map(({ kind }) => kind)).toContain('dress');
  // The server does not answer here: nobody knows what the workshop has.
  expect(result.current.steps.map(({ kind }) => kind)).not.toContain('stop');
});
