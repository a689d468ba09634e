// @vitest-environment jsdom
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { useGauge } from './useGauge.js';

let typed: string[] = [];

function box(): HTMLInputElement {
  const made = document.createElement('input');
  made.dataset.reading = '';
  made.addEventListener('keydown', ({ key }) => key === 'Enter' && typed.push(made.value));
  document.body.append(made);
  return made;
}

beforeEach(() => {
  localStorage.clear();
  typed = [];
});
afterEach(() => document.body.replaceChildren());

async function listening() {
  const { result } = renderHook(() => useGauge());
  expect([result.current.name, result.current.press]).toEqual([null, null]);
  act(() => result.current.simulate());
  await waitFor(() => expect(result.current.name).toBe('the simulated gauge'));
  return result;
}

it('types what it sends into the box in hand and goes on; with none in hand it says so', async () => {
  const seen = await listening();
  act(() => seen.current.press!('64.010'));
  expect(seen.current.heard).toEqual({
    text: 'The gauge sent 64.010, but no field is selected: select one first.',
    isFault: true,
  });
  box().focus();
  act(() => seen.current.press!('64.012'));
  expect([typed, seen.current.heard]).toEqual([['64.012'], { text: '64.012', isFault: false }]);
  act(() => seen.current.letGo());
  expect([seen.current.name, seen.current.press]).toEqual([null, null]);
});

it('reads lines as this device was told they look, and keeps that', async () => {
  const seen = await listening();
  box().focus();
  act(() => seen.current.setLine({ pattern: 'N+# mm' }));
  act(() => seen.current.press!('1.995'));
  expect(typed).toEqual(['1.995']);
  const again = renderHook(() => useGauge()).result;
  expect(again.current.line.pattern).toBe('N+# mm');
});
