import { createSortedRowModel, rowSortingFeature, sortFn_basic, tableFeatures } from '@tanstack/react-table';
import type { ReactNode } from 'react';

export const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic },
});

/** One column of a table that lists things. */
export interface DataColumn<Item> {
  readonly key: string;
  readonly head: ReactNode;
  readonly cell: (item: Item) => ReactNode;
  /** What it is sorted by; left out, it is not. Texts by the alphabet, numbers by size, null last. */
  readonly sortBy?: (item: Item) => string | number | null;
  readonly isFigure?: boolean;
  readonly className?: string | ((item: Item) => string | undefined);
}

/** Made once: each of its own would cost more than the comparing. */
const byAlphabet = new Intl.Collator('en', { numeric: true }).compare;

export function compared(one: string | number, other: string | number): number {
  if (typeof one === 'number' && typeof other === 'number') return one - other;
  return byAlphabet(String(one), String(other));
}
