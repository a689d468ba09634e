import { useCallback, useState } from 'react';

/**
 * Text that is not ready to be saved yet, kept on this device over a reload. Cleared once it has become part of the
 * job.
 */
export function useDraft<Value>(key: string, initial: Value): [Value, (value: Value) => void, () => void] {
  const storageKey = `fettle.draft.${key}`;
  const [value, setValue] = useState<Value>(() => {
    const kept = localStorage.getItem(storageKey);
    return kept === null ? initial : { ...initial, ...(JSON.parse(kept) as Value) };
  });
  const set = useCallback(
    (next: Value) => {
      setValue(next);
      localStorage.setItem(storageKey, JSON.stringify(next));
    },
    [storageKey],
  );
  const clear = useCallback(() => {
    localStorage.removeItem(storageKey);
    setValue(initial);
  }, [storageKey, initial]);
  return [value, set, clear];
}
