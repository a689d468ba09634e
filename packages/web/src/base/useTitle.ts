import { useEffect } from 'react';

/** Names the page in its window, in the history of the browser, and as a file when it is printed; the most particular word first. */
export function useTitle(...parts: readonly string[]): void {
  const title = [...parts.filter((part) => part !== ''), 'Fettle'].join(' · ');
  useEffect(() => {
    document.title = title;
  }, [title]);
}
