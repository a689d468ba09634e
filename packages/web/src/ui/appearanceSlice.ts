import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { dropLocalNote, localNote, setLocalNote } from './localNotes.js';
import { APPEARANCES, type Appearance } from './tokens.js';

export type AppearanceSetting = Appearance | 'system';
const KEY = 'fettle.appearance';

function stored(): AppearanceSetting {
  const value = localNote(KEY);
  return APPEARANCES.find((appearance) => appearance === value) ?? 'system';
}

const appearanceSlice = createSlice({
  name: 'appearance',
  initialState: { setting: stored() },
  reducers: {
    appearanceChosen(state, action: PayloadAction<AppearanceSetting>) {
      state.setting = action.payload;
    },
  },
});

export const { appearanceChosen } = appearanceSlice.actions;
export const appearanceReducer = appearanceSlice.reducer;

/** Keeps the setting for this device and puts it on the page; the system's wish decides where nothing was chosen. */
export function applyAppearance(setting: AppearanceSetting): void {
  if (setting === 'system') dropLocalNote(KEY);
  else setLocalNote(KEY, setting);
  const system = matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
  document.documentElement.dataset.appearance = setting === 'system' ? system : setting;
}
