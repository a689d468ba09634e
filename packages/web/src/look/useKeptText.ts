import { useCallback, useEffect, useState } from 'react';

export interface KeptText {
  readonly text: string;
  readonly setText: (text: string) => void;
  /** What was typed is saved or given up; the box goes on with this text. */
  readonly settled: (text: string) => void;
  /** Whether the text comes from an earlier visit that ended before it was saved. */
  readonly isLeftOver: boolean;
}

/**
 * The text of a box from the first key to the moment it is saved, kept on this device: a reload, a closed tab or text that
 * cannot be saved as it is does not lose it.
 *
 * @param key names the box on this device
 * @param stored what is saved; shown while nothing else is being typed
 */
export function useKeptText(key: string, stored: string): KeptText {
  const storageKey = `fettle.typing.${key}`;
  const [isLeftOver] = useState(() => localStorage.getItem(storageKey) !== null);
  const [text, show] = useState(() => localStorage.getItem(storageKey) ?? stored);
  useEffect(() => {
    if (localStorage.getItem(storageKey) === null) show(stored);
  }, [storageKey, stored]);
  const setText = useCallback(
    (typed: string) => {
      show(typed);
      localStorage.setItem(storageKey, typed);
    },
    [storageKey],
  );
  const settled = useCallback(
    (next: string) => {
      localStorage.removeItem(storageKey);
      show(next);
    },
    [storageKey],
  );
  return { text, setText, settled, isLeftOver };
}
