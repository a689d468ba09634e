import type { LiveEvent, Presence } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export interface LiveState {
  /** True if the server tells at once what others change; else it is looked at now and then. */
  readonly isLive: boolean;
  /** Who is where, by the page that they have open. */
  readonly here: Readonly<Record<string, Presence>>;
}

const initialState: LiveState = { isLive: false, here: {} };

declare module '../base/store.js' {
  interface RootState {
    readonly live: LiveState;
  }
}

const liveSlice = createSlice({
  name: 'live',
  initialState: initialState as LiveState,
  reducers: {
    listeningBegan: (state) => ({ ...state, isLive: true }),
    listeningEnded: () => initialState,
    heard: (state, { payload: event }: PayloadAction<LiveEvent>) => {
      if (event.kind === 'here') return { ...state, here: { ...state.here, [event.who.tab]: event.who } };
      if (event.kind === 'gone') {
        const { [event.tab]: _, ...here } = state.here;
        return { ...state, here };
      }
      return state;
    },
  },
});

export const { listeningBegan, listeningEnded, heard } = liveSlice.actions;
export const liveReducer = liveSlice.reducer;
