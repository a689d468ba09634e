import { useCallback } from 'react';
import { useSearchParams } from 'react-router';
import { useLatest } from './useLatest.js';

/**
 * Sets what stands in the address behind the page, several things at once; null takes one out.
 *
 * @param replace whether what stood there before is no step to go back to, as a figure that is being typed
 */
export function useSetQuery(replace = false): (parts: Readonly<Record<string, string | null>>) => void {
  const [query, setQuery] = useSearchParams();
  const latest = useLatest(query);
  return useCallback(
    (parts) => {
      const with_ = (before: URLSearchParams) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(parts)) {
          if (value === null) next.delete(name);
          else next.set(name, value);
        }
        return next;
      };
      // What is there already is no step to go back from.
      if (with_(latest.current).toString() === latest.current.toString()) return;
      setQuery(with_, { preventScrollReset: true, replace });
    },
    [setQuery, latest, replace],
  );
}

/**
 * Something of a view that stands in its address, as the panel that is open: back and reload bring it again, and it can be sent.
 *
 * @returns its value, null where the address does not say; and what sets it, or takes it out
 */
export function useQuery(name: string): [string | null, (value: string | null) => void] {
  const [query] = useSearchParams();
  const set = useSetQuery();
  return [query.get(name), useCallback((value) => set({ [name]: value }), [name, set])];
}
