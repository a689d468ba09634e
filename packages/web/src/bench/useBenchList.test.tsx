// @vitest-environment jsdom
import { type JobSummary, newJob, usualLayout } from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Around, jobView } from '../job/testing/openedJob.js';
import { type Asked, type Given, refusal, serverAnswers } from '../wire/testing/serverAnswers.js';
import { closedText, useBenchList } from './useBenchList.js';

const id = '00000000-0000-4000-8000-000000000501';
const engine = { id, version: 4, name: 'Reed 6', held: { reserved: 3, fitted: 0 } } as JobSummary;
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const document = newJob('Reed 6', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const viewOf = (version: number) => jobView(id, document, [], { version });
let asked: Asked[];
let answer: (one: Asked) => Given;

beforeEach(() => {
  answer = ({ method, path }) =>
    path.includes('/fitted/') ? [200, { lines: [], pieces: [], gone: [] }] : [200, viewOf(method === 'DELETE' ? 5 : 6)];
  asked = serverAnswers((one) => answer(one));
});
afterEach(() => void vi.unstubAllGlobals());

const open = () => renderHook(() => useBenchList(), { wrapper: Around }).result;
const sent = () => asked.map(({ method, path }) => `${method} ${path.split('?')[0]}`);

it('closes an engine whose shells go back to stock, and reopens it as it was left', async () => {
  const list = open();
  await act(async () => list.current.close(engine, 'back'));
  await waitFor(() => expect(list.current.closed).not.toBeNull());
  expect(closedText(list.current.closed!)).toBe('Reed 6 closed; 3 parts back in stock.');
  await act(async () => list.current.reopen(list.current.closed!));
  await waitFor(() => expect(list.current.closed).toBeNull());
  expect(sent()).toEqual([`DELETE /api/jobs/${id}`, `POST /api/jobs/${id}/restore`]);
  expect(asked[1]!.body.version).toBe(5);
});

it('takes fitted shells from stock first, and puts them back when it is undone', async () => {
  const list = open();
  await act(async () => list.current.close(engine, 'fitted'));
  await waitFor(() => expect(list.current.closed?.isFitted).toBe(true));
  expect(closedText(list.current.closed!)).toBe('Reed 6 closed; 3 parts fitted in it removed from stock.');
  await act(async () => list.current.reopen(list.current.closed!));
  await waitFor(() => expect(list.current.closed).toBeNull());
  expect(asked.filter(({ body }) => body?.fitted !== undefined).map(({ body }) => body.fitted)).toEqual([true, false]);
});

it('says why an engine could not be closed, and does not claim that it was', async () => {
  answer = () => refusal(409, 'stale-version', 'Reed 6 was changed meanwhile.');
  const list = open();
  await act(async () => list.current.close(engine, 'back'));
  await waitFor(() => expect(list.current.fault).toContain('changed meanwhile'));
  expect(list.current.closed).toBeNull();
});

it('shows page after page, and begins again with another filter', async () => {
  const list = open();
  expect(list.current.starts).toEqual([null]);
  act(() => list.current.showMore('a'));
  act(() => list.current.showMore('b'));
  expect(list.current.starts).toEqual([null, 'a', 'b']);
  act(() => list.current.setStage('data'));
  expect(list.current.filter.stage).toBe('data');
  expect(list.current.starts).toEqual([null]);
});

it('names one part as one', () => {
  expect(closedText({ id, name: 'Burr 2', version: 1, count: 0, isFitted: false })).toBe('Burr 2 closed.');
  expect(closedText({ id, name: 'Burr 2', version: 1, count: 1, isFitted: false })).toBe(
    'Burr 2 closed; one part back in stock.',
  );
});
