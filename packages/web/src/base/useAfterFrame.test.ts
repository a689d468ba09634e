// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { useAfterFrame } from './useAfterFrame.js';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

interface Engine {
  readonly id: string;
  readonly figures: number;
}

function follow(first: Engine | null) {
  return renderHook(({ engine }: { engine: Engine | null }) => useAfterFrame(engine), {
    initialProps: { engine: first },
  });
}

it('is a frame behind a change of the same engine', () => {
  const { result, rerender } = follow({ id: 'a', figures: 1 });
  expect(result.current).toEqual({ id: 'a', figures: 1 });
  rerender({ engine: { id: 'a', figures: 2 } });
  expect(result.current).toEqual({ id: 'a', figures: 1 });
  act(() => void vi.advanceTimersByTime(100));
  expect(result.current).toEqual({ id: 'a', figures: 2 });
});

it('never shows one engine for another, nor waits for the first', () => {
  const { result, rerender } = follow(null);
  rerender({ engine: { id: 'a', figures: 1 } });
  expect(result.current).toEqual({ id: 'a', figures: 1 });
  act(() => void vi.advanceTimersByTime(100));
  rerender({ engine: { id: 'b', figures: 5 } });
  expect(result.current).toEqual({ id: 'b', figures: 5 });
  rerender({ engine: null });
  expect(result.current).toBeNull();
});
