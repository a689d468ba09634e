import type { KnownScope, Unit } from '@fettle/core';
import { useOutletContext } from 'react-router';

/** What the pages of what is known are narrowed to, and what their lengths are in. */
export interface Known {
  readonly scope: KnownScope;
  readonly unit: Unit;
  /** True if they are narrowed at all. */
  readonly isNarrowed: boolean;
}

export function useKnown(): Known {
  return useOutletContext<Known>();
}
