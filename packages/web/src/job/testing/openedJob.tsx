import { type JobDocument, type JobView, nanometres, type Reading } from '@fettle/core';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { jobArrived, parcelDelivered } from '../../saving/savingSlice.js';
import { store } from '../../shell/store.js';

/** When everything in tests of hooks was done. */
export const AT = '2026-01-02T03:04:05.000Z';

/** What stands around a hook of an engine: the store and an address. */
export function Around({ children }: { readonly children: ReactNode }) {
  return (
    <Provider store={store}>
      <MemoryRouter>{children}</MemoryRouter>
    </Provider>
  );
}

/** An engine as the server tells it. */
export function jobView(id: string, document: JobDocument, readings: Reading[], part: Partial<JobView> = {}): JobView {
  return {
    id,
    version: 1,
    revision: 1,
    document,
    readings,
    held: { reserved: 0, fitted: 0 },
    createdAt: AT,
    createdBy: 'Wren',
    updatedAt: AT,
    updatedBy: 'Wren',
    deletedAt: null,
    ...part,
  };
}

/** An engine as it comes from the server, a revision after the one that is here. */
export function jobCame(id: string, document: JobDocument, readings: Reading[]): void {
  const before = store.getState().saving.jobs[id];
  store.dispatch(jobArrived(jobView(id, document, readings, { revision: before ? before.revision + 1 : 1 })));
}

let readingCount = 0;

/** One reading of a main in the place that tells its size, in mm. */
export function sizeRead(feature: 'mainBore' | 'mainJournal', station: number, um: number): Reading {
  readingCount += 1;
  return {
    id: `00000000-0000-4000-8000-${String(readingCount).padStart(12, 'f')}`,
    feature,
    station,
    slot: feature === 'mainBore' ? 'front' : 'front-0',
    text: String(um / 1000),
    unit: 'mm',
    setting: null,
    nm: nanometres(um * 1000),
    replaces: null,
    by: 'Wren',
    at: AT,
  };
}

/** Nothing waits to be sent any more. */
export function nothingWaits(): void {
  for (const parcel of store.getState().saving.parcels) store.dispatch(parcelDelivered(parcel.id));
}
