// @vitest-environment jsdom
import { renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { useSame } from './useSame.js';

it('keeps the object while what it says stays, and takes the next one once it says something else', () => {
  const first = { of: [1, 2] };
  const { result, rerender } = renderHook(({ value }: { value: typeof first | null }) => useSame(value), {
    initialProps: { value: first as typeof first | null },
  });
  rerender({ value: { of: [1, 2] } });
  expect(result.current).toBe(first);
  const other = { of: [2, 1] };
  rerender({ value: other });
  expect(result.current).toBe(other);
  rerender({ value: null });
  expect(result.current).toBeNull();
  const again = { of: [2, 1] };
  rerender({ value: again });
  expect(result.current).toBe(again);
});
