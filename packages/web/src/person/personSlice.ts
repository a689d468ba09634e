import { cutText } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { sessionTold } from '../access/accessSlice.js';

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
  extraReducers: (build) =>
    // Who is signed in is who does what is done, whatever was typed on this device before.
    build.addCase(sessionTold, (state, { payload: { person } }) => {
      if (person) state.name = person.name;
    }),
});

export const { personNamed } = personSlice.actions;
export const personReducer = personSlice.reducer;
