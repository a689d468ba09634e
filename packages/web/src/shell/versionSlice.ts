import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What became of the page's own version: nothing new, a new one that waits, or a new one that another tab has gone over to. */
export type NewVersion = 'none' | 'waits' | 'taken';

declare module '../base/store.js' {
  interface RootState {
    readonly version: NewVersion;
  }
}

const versionSlice = createSlice({
  name: 'version',
  initialState: 'none' as NewVersion,
  reducers: { versionFound: (_, { payload }: PayloadAction<NewVersion>) => payload },
});

export const { versionFound } = versionSlice.actions;
export const versionReducer = versionSlice.reducer;
