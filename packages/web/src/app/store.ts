import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { appearanceReducer } from '../look/appearanceSlice.js';
import { personReducer } from '../person/personSlice.js';
import { savingReducer } from '../saving/savingSlice.js';

export const store = configureStore({
  reducer: { appearance: appearanceReducer, person: personReducer, saving: savingReducer },
});

export type Store = typeof store;
export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
