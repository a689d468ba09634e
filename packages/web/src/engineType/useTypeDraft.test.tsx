// @vitest-environment jsdom
import { newEngineType, type TypeView, usualLayout } from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { store } from '../shell/store.js';
import { useTypeDraft } from './useTypeDraft.js';

const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const type = newEngineType('Rush Twin', 'mm', usual.layout);
let count = 0;
let id: string;

/** What the server would keep; the tests of the server hold that it does. */
let kept: TypeView | null;
let put: { revision: number; type: { name: string } }[];

const json = (status: number, body: unknown, kind = 'application/json') =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': kind } });

const refused = (status: number, type: string) =>
  json(
    status,
    { type, title: type, status, detail: 'Engine type not found, or changed meanwhile.' },
    'application/problem+json',
  );

function keep(revision: number, name: string, by: string): void {
  kept = {
    id,
    revision,
    type: { ...type, name },
    archivedAt: null,
    updatedBy: by,
    updatedAt: '2026-01-02T03:04:05.000Z',
  };
}

beforeEach(() => {
  localStorage.clear();
  count += 1;
  id = `00000000-0000-4000-8000-00000000000${count}`;
  kept = null;
  put = [];
  vi.stubGlobal('fetch', async (asked: Request | string, init?: RequestInit) => {
    const method = typeof asked === 'string' ? (init?.method ?? 'GET') : asked.method;
    if (method === 'PUT') {
      const body = JSON.parse(typeof asked === 'string' ? String(init?.body) : await asked.text());
      if (body.revision !== (kept?.revision ?? 0)) return refused(409, 'stale-version');
      put.push(body);
      keep(body.revision + 1, body.type.name, body.by);
      return json(200, kept);
    }
    return kept ? json(200, kept) : refused(404, 'not-found');
  });
});
afterEach(() => void vi.unstubAllGlobals());

const draftOf = (isNew = false) => renderHook(() => useTypeDraft(id, isNew), { wrapper }).result;

it('opens what is in the library, and says so where it is not there', async () => {
  keep(3, 'Rush Twin', 'Wren');
  const found = draftOf();
  await waitFor(() => expect(found.current.open?.text.name).toBe('Rush Twin'));
  expect(found.current).toMatchObject({ isTyped: false, base: 3, isBehind: false, undo: null });
  kept = null;
  id = '00000000-0000-4000-8000-0000000000ff';
  const missing = draftOf();
  await waitFor(() => expect(missing.current.isLoaded).toBe(true));
  expect(missing.current.open).toBeNull();
});

it('starts a new one from the usual layout, and asks for what is missing when it is saved', async () => {
  const draft = draftOf(true);
  await waitFor(() => expect(draft.current.open).not.toBeNull());
  await act(async () => draft.current.save());
  expect(draft.current.isTried).toBe(true);
  expect(put).toEqual([]);
});

it('keeps what is typed until it is saved as the next revision, and takes changes back', async () => {
  keep(1, 'Rush Twin', 'Wren');
  const draft = draftOf();
  await waitFor(() => expect(draft.current.open).not.toBeNull());
  act(() => draft.current.open!.change((text) => ({ ...text, name: 'Rush Twin B' })));
  expect(draft.current.isTyped).toBe(true);
  act(() => draft.current.undo!());
  expect(draft.current.open!.text.name).toBe('Rush Twin');
  act(() => draft.current.open!.change((text) => ({ ...text, name: 'Rush Twin C' })));
  await act(async () => draft.current.save());
  await waitFor(() => expect(draft.current.isTyped).toBe(false));
  expect(put).toEqual([
    expect.objectContaining({ revision: 1, type: expect.objectContaining({ name: 'Rush Twin C' }) }),
  ]);
  await waitFor(() => expect(draft.current.base).toBe(2));
});

it('never overwrites a later revision of somebody else unseen', async () => {
  keep(1, 'Rush Twin', 'Wren');
  const draft = draftOf();
  await waitFor(() => expect(draft.current.open).not.toBeNull());
  act(() => draft.current.open!.change((text) => ({ ...text, name: 'mine' })));
  keep(2, 'theirs', 'Teasel');
  await act(async () => draft.current.save());
  await waitFor(() => expect(draft.current.isBehind).toBe(true));
  expect([draft.current.open!.text.name, put]).toEqual(['mine', []]);
  act(() => draft.current.overwrite());
  expect(draft.current.isBehind).toBe(false);
  await act(async () => draft.current.save());
  await waitFor(() => expect(put).toEqual([expect.objectContaining({ revision: 2 })]));
});

it('gives up what is typed when told to', async () => {
  keep(1, 'Rush Twin', 'Wren');
  const draft = draftOf();
  await waitFor(() => expect(draft.current.open).not.toBeNull());
  act(() => draft.current.open!.change((text) => ({ ...text, name: 'mine' })));
  act(() => draft.current.drop());
  expect(draft.current).toMatchObject({ isTyped: false });
  expect(draft.current.open!.text.name).toBe('Rush Twin');
});
