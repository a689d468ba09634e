import type { ReactNode } from 'react';
import { useKnown } from './useKnown.js';

/** What is said where nothing is known: why; or, where the page is narrowed, that it may be for that. */
export function KnownNothing({ children }: { readonly children: ReactNode }) {
  const { isNarrowed } = useKnown();
  return <p>{isNarrowed ? 'No engines match these filters.' : children}</p>;
}
