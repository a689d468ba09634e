import type { ReactNode } from 'react';

/** A table that is wider than a small screen scrolls within its panel, not the page; hidden words in its heads do too. */
export function WideTable({ children }: { readonly children: ReactNode }) {
  return <div style={{ position: 'relative', overflowX: 'auto' }}>{children}</div>;
}
