import { useEffect, useSyncExternalStore } from 'react';

/** What stands on the page and is not saved yet, by who shows it. */
const open = new Map<symbol, string>();
const listeners = new Set<() => void>();

function tell(): void {
  for (const listener of listeners) listener();
}

/**
 * Says that something on the page is not saved, for as long as it is shown: then nobody is told that all is.
 *
 * @param what what it is, in a few words: `Typed, not saved yet`; null while there is nothing
 */
export function useUnsaved(what: string | null): void {
  useEffect(() => {
    if (what === null) return;
    const own = Symbol(what);
    open.set(own, what);
    tell();
    return () => {
      open.delete(own);
      tell();
    };
  }, [what]);
}

/** The first of what stands on the page and is not saved; null where there is nothing. */
export function useFirstUnsaved(): string | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => open.values().next().value ?? null,
  );
}
