// @vitest-environment jsdom
import {
  derivedUndersize,
  engineTypeSchema,
  jobOfType,
  nanometres,
  newEngineType,
  type Reading,
  shellsOfSheet,
  usualLayout,
} from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useCodes } from './useCodes.js';

const um = (value: number) => nanometres(value * 1000);
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const grade = (mark: string, low: number) => ({ mark, low: um(low), high: um(low + 2), paint: null });
const grades = [grade('Thin', 1_991), grade('Mid', 1_994), grade('Thick', 1_997)];
const type = engineTypeSchema.parse({
  ...newEngineType('Rush Twin', 'mm', usual.layout),
  limits: { mainBore: limit(64_000, 64_012), mainJournal: limit(59_976, 59_988), mainClearance: limit(20, 50) },
  rows: [
    { feature: 'mainBore', prefix: '', first: 'front' },
    { feature: 'mainJournal', prefix: 'J', first: 'rear' },
  ],
  main: {
    series: 'Marsh',
    housing: [
      { mark: 'A', low: um(64_000), high: um(64_006) },
      { mark: 'B', low: um(64_006), high: um(64_012) },
    ],
    journal: [
      { mark: '1', low: um(59_982), high: um(59_988) },
      { mark: '2', low: um(59_976), high: um(59_982) },
    ],
    grades,
    table: { A: { 1: 'Thin', 2: 'Mid' }, B: { 1: 'Mid', 2: { upper: 'Mid', lower: 'Thick' } } },
    undersizes: [derivedUndersize('0.25', um(250), limit(59_976, 59_988), grades)],
  },
});
const id = '00000000-0000-4000-8000-0000000000af';
const job = jobOfType('Rush Twin 7', type, { type: id, revision: 1 }, false);
const shells = Object.fromEntries(
  shellsOfSheet(job.sheet!, 'main', null).map((shell) => [`${shell.grade} ${shell.half}`, shell]),
);

function open(readings: Reading[] = []) {
  jobCame(id, { ...job, shells }, readings);
  const { result } = renderHook(
    () => {
      const opened = useJob(id)!;
      return { job: opened, codes: useCodes(opened) };
    },
    { wrapper: Around },
  );
  return result;
}

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
});

it('rows of marks are read as they are typed, from the end that they begin at, and call for their grades', () => {
  const seen = open();
  expect(seen.current.codes.features).toEqual(['mainBore', 'mainJournal']);
  act(() => seen.current.codes.commit('mainBore', ' A B B '));
  act(() => seen.current.codes.commit('mainJournal', 'J 1 2 2'));
  expect(seen.current.job.document.marks).toEqual({
    mainBore: { text: 'A B B', first: 'front' },
    mainJournal: { text: 'J 1 2 2', first: 'rear' },
  });
  // The row of journals begins at the rear: M1 is 2, M3 is 1.
  expect(Object.fromEntries(seen.current.codes.marksOf('mainJournal'))).toEqual({ M1: '2', M2: '2', M3: '1' });
  expect(['M1', 'M2', 'M3'].map((main) => seen.current.codes.coded.get(main)?.grades)).toEqual([
    { upper: 'Mid', lower: 'Mid' },
    { upper: 'Mid', lower: 'Thick' },
    { upper: 'Mid', lower: 'Mid' },
  ]);
  expect(seen.current.codes.placeRods).toBeNull();
});

it('what the table calls for is locked, but not where a size contradicts its mark; what is lacking is told', () => {
  const at = { unit: 'mm', setting: null, replaces: null, by: 'Wren', at: AT, text: 'x' } as const;
  const wrong: Reading[] = [0, 1].map((which) => ({
    ...at,
    id: `00000000-0000-4000-8000-00000000001${which}`,
    feature: 'mainBore',
    station: 2,
    slot: which === 0 ? 'front' : 'rear',
    nm: um(63_990),
  }));
  const seen = open(wrong);
  act(() => seen.current.codes.commit('mainBore', 'A B B'));
  act(() => seen.current.codes.commit('mainJournal', 'J 1 2 2'));
  expect([...seen.current.codes.contradicted.keys()]).toEqual(['M2']);
  let isHeld = false;
  act(() => {
    isHeld = seen.current.codes.hold();
  });
  expect([isHeld, seen.current.codes.lacking]).toEqual([true, []]);
  expect(Object.keys(seen.current.job.document.wishes)).toEqual(['M1', 'M3']);
});
