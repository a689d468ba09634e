// @vitest-environment jsdom
import {
  type DrawerLine,
  drawerHalfSchema,
  type JobView,
  jobProgress,
  nanometres,
  newJob,
  usualLayout,
} from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SearchHere } from '../fit/testing/searchHere.js';
import { Around, jobView, sizeRead } from '../job/testing/openedJob.js';
import { type Asked, type Given, refusal, serverAnswers } from '../wire/testing/serverAnswers.js';

vi.stubGlobal('Worker', SearchHere);
const { useTogether } = await import('./useTogether.js');

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const um = (value: number) => nanometres(value * 1000);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const lineId = '00000000-0000-4000-8000-000000000601';
const line = (onHand: number): DrawerLine => ({
  id: lineId,
  version: 1,
  half: drawerHalfSchema.parse({ family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: um(1_995), onHand }),
  reservations: [],
  used: 0,
  fittedHere: 0,
});

/** Three mains whose bores leave 35 µm with two shells of 1.995. */
function engine(at: number): JobView {
  const id = `00000000-0000-4000-8000-00000000061${at}`;
  const half = line(0).half;
  const shell = { family: half.family, series: 'A', grade: 'Teal', half: half.half, wall: half.wall, stock: null };
  const readings = [1, 2, 3].flatMap((station) => [
    sizeRead('mainBore', station, 64_010),
    sizeRead('mainJournal', station, 59_985),
  ]);
  return jobView(
    id,
    {
      ...blank,
      name: `Rush Twin ${at}`,
      limits: { ...blank.limits, mainClearance: { low: um(20), high: um(50), source: 'book, p. 1' } },
      shells: { [lineId]: { ...shell, line: lineId } },
    },
    readings,
    { version: 2 },
  );
}

const summaryOf = ({ id, version, document, readings, held, updatedAt, updatedBy, deletedAt }: JobView) => ({
  id,
  version,
  name: document.name,
  unit: document.unit,
  mains: 3,
  rods: 2,
  ...jobProgress(document, readings),
  held,
  short: [],
  updatedAt,
  updatedBy,
  deletedAt,
});

let engines: JobView[];
let lines: DrawerLine[];
let accepted: Given;
let asked: Asked[];

beforeEach(() => {
  engines = [engine(1), engine(2)];
  lines = [line(12)];
  accepted = [200, engines];
  asked = serverAnswers(({ path, method }) => {
    if (method === 'POST') return accepted;
    if (path.startsWith('/api/drawer')) return [200, lines];
    const one = engines.find(({ id }) => path.includes(id));
    return [200, one ?? { jobs: engines.map(summaryOf), people: [], goesOn: null }];
  });
});
afterEach(() => void vi.unstubAllGlobals());

async function open() {
  vi.stubGlobal('Worker', SearchHere);
  const { result } = renderHook(() => useTogether(), { wrapper: Around });
  await waitFor(() => expect(result.current.asked).not.toBeNull());
  return result;
}

async function solved(together: Awaited<ReturnType<typeof open>>) {
  act(() => together.current.fitThem());
  await waitFor(() => expect(together.current.work.state).toBe('done'));
  const { work } = together.current;
  if (work.state !== 'done') throw new Error(work.state);
  return work;
}

it('selects for all engines from one stock, and reserves what it selected for each at its version', async () => {
  const together = await open();
  const { plan, asked: of } = await solved(together);
  expect(plan.status).toBe('optimal');
  await act(async () => together.current.accept(of, plan));
  await waitFor(() => expect(together.current.work).toEqual({ state: 'accepted', count: 2 }));
  const { body } = asked.find(({ method }) => method === 'POST')!;
  expect(body.jobs.map(({ id, version }: JobView) => [id, version])).toEqual(engines.map(({ id }) => [id, 2]));
  expect(Object.keys(body.jobs[0].choice.stations)).toEqual(['M1', 'M2', 'M3']);
});

it('accepts nothing where somebody took a shell meanwhile, and says so', async () => {
  const together = await open();
  const { plan, asked: of } = await solved(together);
  accepted = refusal(409, 'short-of-halves', 'Teal is not there any more.');
  await act(async () => together.current.accept(of, plan));
  await waitFor(() => expect(together.current.work.state).toBe('failed'));
  expect(together.current.work).toMatchObject({ detail: expect.stringContaining('Nothing was accepted.') });
});

it('finds no selection for both where the stock is enough for one; with one left out it is searched again', async () => {
  // By hand: three mains take six halves an engine.
  lines = [line(11)];
  const together = await open();
  expect((await solved(together)).plan.status).toBe('infeasible');
  act(() => together.current.setIn(engines[1]!.id, false));
  expect(together.current.isIn(engines[1]!.id)).toBe(false);
  await waitFor(() => expect(together.current.engines).toHaveLength(1));
  expect((await solved(together)).plan.status).toBe('optimal');
});

it('says what kept the engines from being read', async () => {
  vi.stubGlobal('fetch', async () => {
    throw new TypeError('fetch failed');
  });
  vi.stubGlobal('Worker', SearchHere);
  const { result } = renderHook(() => useTogether(), { wrapper: Around });
  await waitFor(() => expect(result.current.fault).not.toBeNull());
  expect(result.current.sharing).toBeNull();
});
