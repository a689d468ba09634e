import type { JobDocument, JobView, Reading } from '@fettle/core';
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

/** An engine as it comes from the server, a revision after the one that is here. */
export function jobCame(id: string, document: JobDocument, readings: Reading[]): void {
  const before = store.getState().saving.jobs[id];
  const view: JobView = {
    id,
    version: 1,
    revision: before ? before.revision + 1 : 1,
    document,
    readings,
    held: { reserved: 0, fitted: 0 },
    createdAt: AT,
    createdBy: 'Wren',
    updatedAt: AT,
    updatedBy: 'Wren',
    deletedAt: null,
  };
  store.dispatch(jobArrived(view));
}

/** Nothing waits to be sent any more. */
export function nothingWaits(): void {
  for (const parcel of store.getState().saving.parcels) store.dispatch(parcelDelivered(parcel.id));
}
