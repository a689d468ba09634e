import { useEffect } from 'react';
import { localNote, setMinorNote } from './localNotes.js';
import { useLatest } from './useLatest.js';

/** A key that does something on the page in view. */
export interface Shortcut {
  /** As `KeyboardEvent.key` tells it. */
  readonly key: string;
  /** What it does, as a button would say it. */
  readonly words: string;
  readonly act: () => void;
}

const KEY = 'fettle.shortcuts';
/** The last one of a key counts: a panel is later than the page that it stands on. */
let here: readonly Shortcut[] = [];

/** The shortcuts of the page in view, one a key, in the order in which they came. */
export function shortcutsHere(): readonly Shortcut[] {
  return here.filter(({ key }, at) => here.findLastIndex((one) => one.key === key) === at);
}

/** True if single keys do something on this device. */
export function areShortcutsOn(): boolean {
  return localNote(KEY) !== 'off';
}

/** Turns single keys on or off on this device (WCAG 2.2, 2.1.4; cited from memory). */
export function turnShortcuts(on: boolean): void {
  setMinorNote(KEY, on ? null : 'off');
}

/**
 * A key that does something as long as the component is there.
 *
 * @param act null while it can do nothing: then it is not listed either
 */
export function useShortcut(key: string, words: string, act: (() => void) | null): void {
  const latest = useLatest(act);
  const isThere = act !== null;
  useEffect(() => {
    if (!isThere) return;
    const shortcut: Shortcut = { key, words, act: () => latest.current?.() };
    here = [...here, shortcut];
    return () => {
      here = here.filter((one) => one !== shortcut);
    };
  }, [key, words, isThere, latest]);
}

/** Boxes and lists take keys themselves; a dialog is about something else. */
const TAKES_KEYS =
  'input, textarea, select, [contenteditable], [role="listbox"], [role="option"], [role="combobox"], [role="dialog"], [role="menu"]';

/** Hears single keys for the whole page. @returns stops */
export function listenForShortcuts(): () => void {
  const onKey = (event: KeyboardEvent) => {
    const { key, target, ctrlKey, metaKey, altKey, repeat, defaultPrevented } = event;
    if (defaultPrevented || repeat || ctrlKey || metaKey || altKey || !areShortcutsOn()) return;
    if (target instanceof HTMLElement && target.closest(TAKES_KEYS)) return;
    const shortcut = here.findLast((one) => one.key === key);
    if (!shortcut) return;
    event.preventDefault();
    shortcut.act();
  };
  document.addEventListener('keydown', onKey);
  return () => document.removeEventListener('keydown', onKey);
}
