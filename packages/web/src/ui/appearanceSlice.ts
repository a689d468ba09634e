import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { dropLocalNote, localNote, setLocalNote } from '../base/localNotes.js';
import { APPEARANCES, type Appearance } from './tokens.js';

export type AppearanceSetting = Appearance | 'system';
const KEY = 'fettle.appearance';

function stored(): AppearanceSetting {
  const value = localNote(KEY);
  return APPEARANCES.find((appearance) => appearance === value) ?? 'system';
}

/** Who reads the clearances of inch engines in thousandths, by name; `''` for who has given none. */
const THOU_KEY = 'fettle.thousandths';

function storedReaders(): string[] {
  const value = localNote(THOU_KEY);
  return value === null ? [] : value.split('\n');
}

declare module '../base/store.js' {
  interface RootState {
    readonly appearance: ReturnType<typeof appearanceReducer>;
  }
}

const appearanceSlice = createSlice({
  name: 'appearance',
  initialState: () => ({ setting: stored(), inThousandths: storedReaders() }),
  reducers: {
    appearanceChosen(state, action: PayloadAction<AppearanceSetting>) {
      state.setting = action.payload;
    },
    thousandthsChosen(state, { payload: { person, isOn } }: PayloadAction<{ person: string; isOn: boolean }>) {
      const others = state.inThousandths.filter((name) => name !== person);
      state.inThousandths = isOn ? [...others, person] : others;
      if (state.inThousandths.length === 0) dropLocalNote(THOU_KEY);
      else setLocalNote(THOU_KEY, state.inThousandths.join('\n'));
    },
  },
});

export const { appearanceChosen, thousandthsChosen } = appearanceSlice.actions;
export const appearanceReducer = appearanceSlice.reducer;

/** Keeps the setting for this device and puts it on the page; the system's wish decides where nothing was chosen. */
export function applyAppearance(setting: AppearanceSetting): void {
  if (setting === 'system') dropLocalNote(KEY);
  else setLocalNote(KEY, setting);
  const system = matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
  document.documentElement.dataset.appearance = setting === 'system' ? system : setting;
}
