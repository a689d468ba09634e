import { useSyncExternalStore } from 'react';

/** A screen held in one hand: narrower than this, px. */
const NARROW = matchMedia('(max-width: 640px)');

/** True if the screen is one that is held in a hand. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      NARROW.addEventListener('change', changed);
      return () => NARROW.removeEventListener('change', changed);
    },
    () => NARROW.matches,
  );
}
