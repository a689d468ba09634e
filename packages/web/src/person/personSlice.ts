import { cutText } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

const KEY = 'fettle.person';

/** Stands in the history until somebody types a name on this device. */
export const NOBODY = 'Unnamed';

const personSlice = createSlice({
  name: 'person',
  initialState: { name: localStorage.getItem(KEY) ?? '' },
  reducers: {
    personNamed(state, action: PayloadAction<string>) {
      state.name = cutText(action.payload.trim(), 60);
      localStorage.setItem(KEY, state.name);
    },
  },
});

export const { personNamed } = personSlice.actions;
export const personReducer = personSlice.reducer;
