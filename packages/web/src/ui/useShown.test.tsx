// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { useShown } from './useShown.js';

const items = Array.from({ length: 450 }, (_, at) => at);

function rows(count: number) {
  const body = document.createElement('tbody');
  for (let at = 0; at < count; at += 1) body.append(document.createElement('tr'));
  document.body.append(body);
  return body;
}

it('the first hundred rows are shown, and what is wanted wherever it stands; then four times as many, the first new one in hand', () => {
  const body = rows(450);
  const { result } = renderHook(() => useShown(items, { current: body }, (item) => item === 440));
  expect([result.current.most, result.current.shown.length, result.current.shown.at(-1)]).toEqual([100, 101, 440]);
  act(() => result.current.showMore());
  expect([result.current.most, result.current.shown.length]).toEqual([400, 401]);
  expect(document.activeElement).toBe(body.rows[100]);
});

it('where rows are drawn only in sight, the first new one is asked for by its place', () => {
  const seen: number[] = [];
  const { result } = renderHook(() => useShown(items, { current: null }, undefined, (at) => void seen.push(at)));
  act(() => result.current.showMore());
  expect(seen).toEqual([100]);
});
