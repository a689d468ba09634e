import type { BehindQuery } from '@fettle/core';
import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';

/** What an address says of the one figure whose engines are listed. */
export const BEHIND_KEYS = ['what', 'family', 'grade', 'half', 'feature', 'mark', 'instrument'] as const;

type Behind = BehindQuery & { readonly type?: string; readonly series?: string; readonly person?: string };

/** Leads to the engines behind one figure, narrowed as the page is. */
export function BehindLink({ to, label, children }: { to: Behind; label: string; children: ReactNode }) {
  const [query] = useSearchParams();
  const next = new URLSearchParams(query);
  for (const key of BEHIND_KEYS) next.delete(key);
  for (const [key, value] of Object.entries(to)) if (value !== undefined && value !== '') next.set(key, value);
  return (
    <Link to={`../engines?${next}`} relative="path">
      {children}
      <span className="visually-hidden">, engines behind {label}</span>
    </Link>
  );
}
