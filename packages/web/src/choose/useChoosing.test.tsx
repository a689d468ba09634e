// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, expect, it, vi } from 'vitest';
import { SearchHere } from '../fit/testing/searchHere.js';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';

vi.stubGlobal('Worker', SearchHere);
vi.stubGlobal('fetch', () => new Promise(() => {}));
const { useChoosing } = await import('./useChoosing.js');
const { useStationChoices } = await import('./useStationChoices.js');

const um = (value: number) => nanometres(value * 1000);
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000b1';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const shell = (wall: number, stock: number) => ({
  family: 'main' as const,
  series: 'A',
  grade: String(wall),
  half: 'either' as const,
  wall: um(wall),
  stock,
  line: null,
});
const document: JobDocument = {
  ...blank,
  limits: { ...blank.limits, mainClearance: { low: um(20), high: um(50), source: 'book, p. 1' } },
  shells: { thin: shell(1_995, 6), thick: shell(1_998, 6) },
};
const read = (feature: 'mainBore' | 'mainJournal', station: number, size: number, at = AT): Reading => ({
  id: `00000000-0000-4000-8000-0000000${feature.length}00${station}${at.slice(18, 19)}`,
  feature,
  station,
  slot: feature === 'mainBore' ? 'front' : 'front-0',
  text: String(size / 1000),
  unit: 'mm',
  setting: null,
  nm: um(size),
  replaces: null,
  by: 'Wren',
  at,
});
// By hand, µm: gaps of 4 025, 4 031 and 4 025 leave 35 with two thin halves, with two thick ones, with two thin ones.
const readings = [
  [1, 64_010],
  [2, 64_016],
  [3, 64_010],
].flatMap(([station, bore]) => [read('mainBore', station!, bore!), read('mainJournal', station!, 59_985)]);

function open() {
  jobCame(id, document, readings);
  return renderHook(
    () => {
      const job = useJob(id)!;
      const choosing = useChoosing(job);
      const station = choosing.chosen.stations.get('M2')!;
      return { job, choosing, choices: useStationChoices(station, choosing.halves.M2 ?? null, choosing.plan) };
    },
    { wrapper: Around },
  ).result;
}

beforeEach(nothingWaits);

const shellsOf = (halves: Readonly<Record<string, { upper: { shell: string }; lower: { shell: string } }>>) =>
  Object.entries(halves).map(([station, { upper, lower }]) => [station, upper.shell, lower.shell]);

it('the best selection is found, accepted, and looked at again once something is locked', async () => {
  const seen = open();
  await waitFor(() => expect(seen.current.choosing.plan.plan?.status).toBe('optimal'));
  expect(shellsOf(seen.current.choosing.halves)).toEqual([
    ['M1', 'thin', 'thin'],
    ['M2', 'thick', 'thick'],
    ['M3', 'thin', 'thin'],
  ]);
  expect(seen.current.choosing).toMatchObject({ showing: 'best', doubts: [], facts: { mixed: 0, off: { mean: 0 } } });
  act(() => seen.current.choosing.accept());
  expect(seen.current.choosing.showing).toBe('accepted');
  expect(seen.current.job.document.choice).toMatchObject({ by: 'Unnamed' });
  act(() => seen.current.choosing.play.wish('M2', { upper: 'thin', lower: 'thin' }, 'locked'));
  // The accepted one stays as it is; the new best one is what is looked at.
  await waitFor(() => expect(seen.current.choosing.plan.halves.M2?.upper.shell).toBe('thin'));
  expect(seen.current.choosing.showing).toBe('best');
  expect(seen.current.job.document.choice!.stations.M2!.upper.shell).toBe('thick');
  act(() => seen.current.choosing.withdraw());
  expect(seen.current.job.document.choice).toBeNull();
});

it('a station tells what the others come to with another pair there, and its next best', async () => {
  const seen = open();
  await waitFor(() => expect(seen.current.choices.nextBest).not.toBeNull());
  expect(seen.current.choices.best).toBe(0);
  // By hand: one thin half makes M2 3 µm too loose, a mean of 1 over three stations.
  expect(seen.current.choices.nextBest).toMatchObject({ meanOff: um(1) });
  expect(seen.current.choices.meanOffWith('thin', 'thin')).toBe(um(2));
});

it('a part that is read again after the acceptance is told at its station', async () => {
  const seen = open();
  await waitFor(() => expect(seen.current.choosing.plan.plan?.status).toBe('optimal'));
  act(() => seen.current.choosing.accept());
  const later = new Date(Date.now() + 1000).toISOString();
  const again = { ...read('mainBore', 3, 64_011), id: '00000000-0000-4000-8000-0000000000ff', at: later };
  act(() =>
    jobCame(id, seen.current.job.document, [
      ...readings.filter((one) => one.station !== 3 || one.feature !== 'mainBore'),
      again,
    ]),
  );
  await waitFor(() => expect([...seen.current.choosing.readAgain]).toEqual(['M3']));
});
