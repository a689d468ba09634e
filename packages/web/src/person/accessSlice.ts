import type { Session } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { dropLocalNote, localNote, setLocalNote } from '../base/localNotes.js';
import { setTypist } from '../ui/typingNotes.js';

/** Who was signed in here last: while the server is away they go on working. */
const KEY = 'fettle.session';

export interface AccessState {
  /** True if one signs in here; null until it is known. */
  readonly isOn: boolean | null;
  readonly session: Session | null;
}

/** What the server has written into the page. */
function asSaid(): boolean | null {
  const said = document.querySelector<HTMLMetaElement>('meta[name="fettle-accounts"]')?.content;
  return said === 'yes' ? true : said === 'no' ? false : null;
}

function remember(session: Session): void {
  if (session.person === null) dropLocalNote(KEY);
  else setLocalNote(KEY, JSON.stringify({ ...session, confirmedUntil: null, token: '' }));
}

/** Who was signed in when the server was here last; null for nobody. */
export function lastSession(): Session | null {
  const kept = localNote(KEY);
  return kept === null ? null : (JSON.parse(kept) as Session);
}

declare module '../base/store.js' {
  interface RootState {
    readonly access: AccessState;
  }
}

const accessSlice = createSlice({
  name: 'access',
  initialState: (): AccessState => ({ isOn: asSaid(), session: null }),
  reducers: {
    sessionTold(_state, { payload: session }: PayloadAction<Session>) {
      if (session.accounts) remember(session);
      setTypist(session.person?.id ?? null);
      return { isOn: session.accounts, session };
    },
    /** The server asks for the owner’s password again. */
    passwordNeeded(state) {
      return { ...state, session: state.session && { ...state.session, confirmedUntil: null } };
    },
    /** The server says that nobody is signed in any more. */
    sessionEnded(state) {
      const { session } = state;
      return { isOn: true, session: session && { ...session, person: null, confirmedUntil: null, token: '' } };
    },
  },
});

export const { sessionTold, sessionEnded, passwordNeeded } = accessSlice.actions;
export const accessReducer = accessSlice.reducer;
