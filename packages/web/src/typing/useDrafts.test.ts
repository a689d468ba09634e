// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { useDrafts } from './useDrafts.js';

beforeEach(() => localStorage.clear());

const open = () => renderHook(() => useDrafts<{ low: string }>('sedge.limits')).result;

it('keeps each row for itself: one that is saved goes, the others are there after a reload', () => {
  const table = open();
  act(() => table.current.put('mainBore', { low: '64.0' }));
  act(() => table.current.put('3 mainClearance', { low: '0.0' }));
  const noted = Object.entries(localStorage);
  expect(noted).toHaveLength(2);
  act(() => table.current.drop('mainBore'));
  expect(table.current.latest()).toEqual({ '3 mainClearance': { low: '0.0' } });
  expect(open().current.drafts).toEqual({ '3 mainClearance': { low: '0.0' } });
  // What stays is the same typing as before, what was dropped and is typed anew another.
  act(() => table.current.put('3 mainClearance', { low: '0.02' }));
  act(() => table.current.put('mainBore', { low: '64.0' }));
  const idOf = (row: string, of: [string, string][]) => of.find(([key]) => key.endsWith(row))![1].slice(0, 36);
  const now = Object.entries<string>(localStorage);
  expect(idOf('mainClearance', now)).toBe(idOf('mainClearance', noted));
  expect(idOf('mainBore', now)).not.toBe(idOf('mainBore', noted));
});

it('takes over what an earlier build kept of all rows in one note', () => {
  localStorage.setItem('fettle.draft.sedge.limits', JSON.stringify({ mainBore: { low: '64.' }, taper: { low: '0' } }));
  expect(open().current.drafts).toEqual({ mainBore: { low: '64.' }, taper: { low: '0' } });
  expect(Object.keys(localStorage).sort()).toEqual([
    'fettle.draft.sedge.limits/mainBore',
    'fettle.draft.sedge.limits/taper',
  ]);
});
