// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { useDraft } from '../typing/useDraft.js';
import { useKeptText } from './useKeptText.js';

const PLACE = { of: 'kind', part: 'shell', field: 'onHand' };

beforeEach(() => localStorage.clear());

it('what is typed while what was sent is being saved stays in its box', () => {
  const { result, rerender } = renderHook(({ stored }) => useKeptText(PLACE, stored), {
    initialProps: { stored: '4' },
  });
  act(() => result.current.setText('5'));
  act(() => result.current.setText('6'));
  // The answer for 5 comes.
  rerender({ stored: '5' });
  act(() => result.current.settled('5', '5'));
  expect(result.current.text).toBe('6');
  act(() => result.current.settled('6', '6'));
  rerender({ stored: '6' });
  expect([result.current.text, Object.keys(localStorage)]).toEqual(['6', []]);
});

it('what another window, or somebody else, saves while it is being typed in stands beside it, and is asked about', () => {
  const { result, rerender } = renderHook(({ stored }) => useKeptText(PLACE, stored), { initialProps: { stored: '' } });
  act(() => result.current.setText('64.02'));
  // Another window types in the same box, saves, and has done with its note; here the other figure comes.
  localStorage.clear();
  rerender({ stored: '64.01' });
  expect(result.current).toMatchObject({ text: '64.02', clash: '64.01' });
  // What is typed here is noted on: a reload would not lose it.
  expect(Object.values(localStorage).some((note) => String(note).endsWith('64.02'))).toBe(true);
  act(() => result.current.keepMine());
  expect(result.current.clash).toBeNull();
  act(() => result.current.settled('64.02'));
  rerender({ stored: '64.02' });
  expect(result.current).toMatchObject({ text: '64.02', clash: null });
  // Typed once more from what stands there now; theirs is taken this time.
  act(() => result.current.setText('64.03'));
  rerender({ stored: '64.04' });
  expect(result.current.clash).toBe('64.04');
  act(() => result.current.settled('64.04'));
  expect(result.current).toMatchObject({ text: '64.04', clash: null });
});

it('another place has a text of its own', () => {
  const { result, rerender } = renderHook(({ part }) => useKeptText({ ...PLACE, part }, '4'), {
    initialProps: { part: 'one' },
  });
  act(() => result.current.setText('5'));
  rerender({ part: 'other' });
  expect(result.current.text).toBe('4');
  rerender({ part: 'one' });
  expect(result.current.text).toBe('5');
});

it('a form that was changed while it was being saved is not let go', () => {
  interface Form {
    readonly count: string;
    readonly note: string;
  }
  const { result, rerender } = renderHook(({ key }) => useDraft<Form>(key), { initialProps: { key: 'moves.one' } });
  const set = (part: Partial<Form>) => result.current[1]((now) => ({ ...(now ?? { count: '1', note: '' }), ...part }));
  // Two boxes in one moment.
  act(() => {
    set({ count: '3' });
    set({ note: 'old shelf' });
  });
  const sent = result.current[0]!;
  expect(sent).toEqual({ count: '3', note: 'old shelf' });
  act(() => set({ note: 'older shelf' }));
  let isGone = true;
  act(() => {
    isGone = result.current[2](sent);
  });
  expect([isGone, result.current[0]]).toEqual([false, { count: '3', note: 'older shelf' }]);
  rerender({ key: 'moves.two' });
  expect(result.current[0]).toBeNull();
  rerender({ key: 'moves.one' });
  act(() => {
    isGone = result.current[2](result.current[0]!);
  });
  expect([isGone, result.current[0], Object.keys(localStorage)]).toEqual([true, null, []]);
});
