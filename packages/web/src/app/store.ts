import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { accessReducer } from '../access/accessSlice.js';
import { layMoved } from '../drawer/layMoved.js';
import { visitReducer } from '../job/visitSlice.js';
import { liveReducer } from '../live/liveSlice.js';
import { personReducer } from '../person/personSlice.js';
import { savingReducer } from '../saving/savingSlice.js';
import { appearanceReducer } from '../ui/appearanceSlice.js';
import { api } from '../wire/api.js';
import { versionReducer } from './versionSlice.js';

export const store = configureStore({
  reducer: {
    access: accessReducer,
    appearance: appearanceReducer,
    live: liveReducer,
    person: personReducer,
    saving: savingReducer,
    version: versionReducer,
    visit: visitReducer,
    [api.reducerPath]: api.reducer,
  },
  // Parcels and engines are large and never changed in place: the checks of development would go through them at every key.
  middleware: (usual) => usual({ serializableCheck: false, immutableCheck: false }).concat(api.middleware, layMoved),
});
setupListeners(store.dispatch);

export type Store = typeof store;
export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
