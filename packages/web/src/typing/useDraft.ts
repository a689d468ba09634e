import { useCallback, useState } from 'react';
import { noteDone, notedText, noteText } from '../ui/typingNotes.js';

function kept<Value>(storageKey: string): Value | null {
  const text = notedText(storageKey);
  return text === null ? null : (JSON.parse(text) as Value);
}

/**
 * What is being typed into a group of boxes and is not ready to be saved yet, kept on this device over a reload; null while
 * nothing is, so that what is stored shows.
 *
 * @param key names the group on this device
 * @returns the draft, how to change it (to a value, or from what it is by then), and how to let it go once it has become part of
 *   the job. Where it was sent and the answer took a while, what was sent is told: anything else that was typed meanwhile stays, which is
 *   answered with false
 */
export function useDraft<Value>(
  key: string,
): [Value | null, (value: Value | ((now: Value | null) => Value)) => void, (sent?: Value) => boolean] {
  const storageKey = `fettle.draft.${key}`;
  const [held, hold] = useState(() => ({ storageKey, value: kept<Value>(storageKey) }));
  // Another group of the same boxes has a draft of its own.
  if (held.storageKey !== storageKey) hold({ storageKey, value: kept(storageKey) });
  const value = held.storageKey === storageKey ? held.value : kept<Value>(storageKey);
  const set = useCallback(
    (next: Value | ((now: Value | null) => Value)) => {
      // As it is now: an answer may come after more was typed.
      const value = typeof next === 'function' ? (next as (now: Value | null) => Value)(kept(storageKey)) : next;
      hold({ storageKey, value });
      noteText(storageKey, JSON.stringify(value));
    },
    [storageKey],
  );
  const clear = useCallback(
    (sent?: Value) => {
      const now = notedText(storageKey);
      if (sent !== undefined && now !== null && now !== JSON.stringify(sent)) return false;
      hold({ storageKey, value: null });
      noteDone(storageKey);
      return true;
    },
    [storageKey],
  );
  return [value, set, clear];
}
