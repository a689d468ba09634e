/**
 * Local storage as the page uses it. A browser whose storage is full, or forbidden, refuses to write: then a note is kept in the page, and read from
 * there, so that nothing that was typed goes; and it is known how many are nowhere else.
 */
const inPage = new Map<string, string>();

/** What is noted under a key; null for nothing. */
export function localNote(key: string): string | null {
  return inPage.get(key) ?? localStorage.getItem(key);
}

/** Notes something on this device, or, where that has no room, in the page. */
export function setLocalNote(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
    inPage.delete(key);
  } catch {
    inPage.set(key, text);
  }
}

export function dropLocalNote(key: string): void {
  inPage.delete(key);
  localStorage.removeItem(key);
}

/** Every key that something is noted under. */
export function localNoteKeys(): string[] {
  return [...new Set([...Object.keys(localStorage), ...inPage.keys()])];
}

/** Notes something that can be found out again, where there is room; null drops it. Nothing is lost where it goes with the page. */
export function setMinorNote(key: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    // The browser's storage is full, or forbidden.
  }
}

/** How many notes go with the page when it is closed. */
export function notesInPageOnly(): number {
  return inPage.size;
}
