import { localNote, setMinorNote } from '../base/localNotes.js';
import { newId } from '../base/newId.js';

const KEY = 'fettle.browser';

interface Noted {
  readonly id: string;
  /** Ids of the accounts that were told what other browsers of theirs have not sent; empty for who does not sign in. */
  readonly told: readonly string[];
}

/** Of this page, where the browser keeps nothing. */
const inPage: Noted = { id: newId(), told: [] };

function noted(): Noted {
  const text = localNote(KEY);
  if (text !== null) return JSON.parse(text) as Noted;
  setMinorNote(KEY, JSON.stringify(inPage));
  return inPage;
}

/** The id of this browser. It goes when the browser's data is cleared: then it is another browser. */
export function browserId(): string {
  return noted().id;
}

/** True if a person has been told on this browser what other browsers of theirs have not sent. */
export function wasTold(person: string): boolean {
  return noted().told.includes(person);
}

export function setTold(person: string): void {
  const { id, told } = noted();
  if (!told.includes(person)) setMinorNote(KEY, JSON.stringify({ id, told: [...told, person] }));
}
