import { configureStore, createDynamicMiddleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';

/**
 * What stands in the page's store. Empty here: each slice adds the member that it keeps, beside its reducer, and the frame on top puts the
 * reducers in (`shell/store`).
 */
// biome-ignore lint/suspicious/noEmptyInterface: the slices add their members by declaration merging
export interface RootState {}

const { middleware, addMiddleware } = createDynamicMiddleware();

/** Puts what listens to every action into the store. */
export { addMiddleware };

/** The one store of the page. It holds nothing until its reducers are put in. */
export const store = configureStore({
  reducer: (state: RootState = {} as RootState) => state,
  // Parcels and engines are large and never changed in place: the checks of development would go through them at every key.
  middleware: (usual) => usual({ serializableCheck: false, immutableCheck: false }).concat(middleware),
});

export type Store = typeof store;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
