import { useCallback, useState } from 'react';
import { noteDone, notedText, noteText } from '../look/typingNotes.js';

/**
 * What is being typed into a group of boxes and is not ready to be saved yet, kept on this device over a reload; null while
 * nothing is, so that what is stored shows.
 *
 * @param key names the group on this device
 * @returns the draft, how to change it, and how to let it go once it has become part of the job
 */
export function useDraft<Value>(key: string): [Value | null, (value: Value) => void, () => void] {
  const storageKey = `fettle.draft.${key}`;
  const [value, setValue] = useState<Value | null>(() => {
    const kept = notedText(storageKey);
    return kept === null ? null : (JSON.parse(kept) as Value);
  });
  const set = useCallback(
    (next: Value) => {
      setValue(next);
      noteText(storageKey, JSON.stringify(next));
    },
    [storageKey],
  );
  const clear = useCallback(() => {
    setValue(null);
    noteDone(storageKey);
  }, [storageKey]);
  return [value, set, clear];
}
