// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter, useLocation } from 'react-router';
import { beforeEach, expect, it } from 'vitest';
import { nothingWaits } from '../job/testing/openedJob.js';
import { store } from '../shell/store.js';
import { useSum } from './useSum.js';

function open(address = '/sum') {
  const wrapper = ({ children }: { children: ReactNode }) => (
    <Provider store={store}>
      <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
    </Provider>
  );
  return renderHook(() => ({ ...useSum(), at: useLocation() }), { wrapper }).result;
}

beforeEach(nothingWaits);

it('reads its figures from its address, and says which one cannot be', () => {
  const seen = open('/sum?unit=mm&bore=64.010&journal=59.980&upper=1.996&lower=-2&low=0.050&high=0.020');
  expect(seen.current.sizes).toMatchObject({ bore: 64_010_000, journal: 59_980_000, upper: 1_996_000, lower: null });
  expect(seen.current.faults).toEqual({ lower: 'Above zero.', high: 'Below the low limit; swap them.' });
  act(() => seen.current.setRange('0.020', '0.050'));
  act(() => seen.current.set('lower', '1.998'));
  expect(seen.current.faults).toEqual({});
  act(() => seen.current.clear());
  expect(Object.values(seen.current.texts).every((text) => text === '')).toBe(true);
  expect(seen.current.keep).toBeNull();
});

it('is kept as an engine of one main with its two readings, as they were typed', () => {
  const seen = open('/sum?bore=64,010&journal=59.980&upper=1.996&low=0.02&high=0.05');
  act(() => seen.current.keep!('Scrap of paper'));
  const [made, bore, journal] = store.getState().saving.parcels;
  expect(made).toMatchObject({
    kind: 'create',
    document: { name: 'Scrap of paper', limits: { mainClearance: { low: 20_000, high: 50_000 } } },
  });
  expect([bore, journal]).toMatchObject([
    { kind: 'reading', draft: { feature: 'mainBore', text: '64,010', station: 1 } },
    { kind: 'reading', draft: { feature: 'mainJournal', text: '59.980' } },
  ]);
  expect(seen.current.at.pathname).toBe(`/engines/${made!.jobId}/choose`);
});
