import { combineReducers } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { addMiddleware, type RootState, store } from '../base/store.js';
import { layMoved } from '../drawer/layMoved.js';
import { undoReducer } from '../job/undoSlice.js';
import { liveReducer } from '../live/liveSlice.js';
import { accessReducer } from '../person/accessSlice.js';
import { personReducer } from '../person/personSlice.js';
import { savingReducer } from '../saving/savingSlice.js';
import { appearanceReducer } from '../ui/appearanceSlice.js';
import { api } from '../wire/api.js';
import { versionReducer } from './versionSlice.js';

addMiddleware(api.middleware, layMoved);
store.replaceReducer(
  combineReducers({
    access: accessReducer,
    appearance: appearanceReducer,
    live: liveReducer,
    person: personReducer,
    saving: savingReducer,
    version: versionReducer,
    undo: undoReducer,
    api: api.reducer,
  } satisfies Record<keyof RootState, unknown>) as never,
);
setupListeners(store.dispatch);

/** The page's store, with all that is kept in it. */
export { store };
