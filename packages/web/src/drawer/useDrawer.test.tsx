// @vitest-environment jsdom
import { type DrawerLine, drawerHalfSchema } from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { store } from '../shell/store.js';
import { useDrawer } from './useDrawer.js';

const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
const id = '00000000-0000-4000-8000-000000000001';

function line(version: number, onHand: number): DrawerLine {
  const half = drawerHalfSchema.parse({
    family: 'main',
    series: 'A',
    grade: 'teal',
    half: 'upper',
    wall: 1_995_000,
    onHand,
  });
  return { id, version, half, reservations: [], used: 0, fittedHere: 0 };
}

/** What the server would tell; the tests of the server hold that it does. */
let lines: DrawerLine[];
let isUp: boolean;

beforeEach(() => {
  lines = [line(1, 3)];
  isUp = true;
  vi.stubGlobal('fetch', async () => {
    if (!isUp) throw new TypeError('fetch failed');
    return new Response(JSON.stringify(lines), { headers: { 'content-type': 'application/json' } });
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
});

it('does one thing after the other, each on what the one before has left', async () => {
  const { result } = renderHook(() => useDrawer(), { wrapper });
  await waitFor(() => expect(result.current.lines).toHaveLength(1));
  const began: number[] = [];
  const once = async () => {
    const { version, half } = result.current.current(id)!;
    began.push(version);
    await new Promise((resolve) => setTimeout(resolve, 5));
    lines = [line(version + 1, half.onHand + 1)];
  };
  await act(async () => {
    expect(await Promise.all([once, once, once].map((action) => result.current.act(action)))).toEqual([
      true,
      true,
      true,
    ]);
  });
  expect(began).toEqual([1, 2, 3]);
  expect(result.current.current(id)).toMatchObject({ version: 4, half: { onHand: 6 } });
});

it('says what kept something from working, goes on with the next, and keeps what was read last', async () => {
  const { result } = renderHook(() => useDrawer(), { wrapper });
  await waitFor(() => expect(result.current.lines).toHaveLength(1));
  isUp = false;
  await act(async () => {
    const refused = () => Promise.reject(new Error('The last one is reserved.'));
    expect(await result.current.act(refused)).toBe(false);
  });
  expect(result.current.fault).toBe('The last one is reserved.');
  expect(result.current.lines).toHaveLength(1);
  expect(result.current.current(id)).toBeDefined();
  await act(async () => {
    expect(await result.current.act(() => Promise.resolve())).toBe(true);
  });
  expect(result.current.fault).toBeNull();
});
