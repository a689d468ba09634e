import type { ReactNode } from 'react';

/** A table that is wider than a small screen scrolls within its panel, not the page. */
export function WideTable({ children }: { readonly children: ReactNode }) {
  return <div style={{ overflowX: 'auto' }}>{children}</div>;
}
