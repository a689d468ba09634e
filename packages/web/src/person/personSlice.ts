import { cutText } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { localNote, setLocalNote } from '../base/localNotes.js';
import { sessionTold } from './accessSlice.js';

const KEY = 'fettle.person';

/** Stands in the history until somebody types a name on this device. */
export const NOBODY = 'Unnamed';

export interface PersonState {
  readonly name: string;
  /** True if the name is that of an account, which nobody types. */
  readonly isAccount: boolean;
}

declare module '../base/store.js' {
  interface RootState {
    readonly person: PersonState;
  }
}

const personSlice = createSlice({
  name: 'person',
  initialState: (): PersonState => ({ name: localNote(KEY) ?? '', isAccount: false }),
  reducers: {
    personNamed(state, action: PayloadAction<string>) {
      if (state.isAccount) return;
      state.name = cutText(action.payload.trim(), 60);
      setLocalNote(KEY, state.name);
    },
  },
  extraReducers: (build) =>
    // Who is signed in is who does what is done, whatever was typed on this device before.
    build.addCase(sessionTold, (state, { payload: { person } }) => {
      if (!person) return;
      state.name = person.name;
      state.isAccount = true;
    }),
});

export const { personNamed } = personSlice.actions;
export const personReducer = personSlice.reducer;
