import type { StationState } from './stationState.js';

/** What was found and done; what it was judged by; every reading, on a page of its own. In the order of the sheet. */
export const SHEET_PARTS = ['result', 'reference', 'readings'] as const;

/** What stands in one cell of a table on the sheet. */
export interface SheetCell {
  readonly text: string;
  /** A second, smaller line. */
  readonly small?: string;
  /** A moment; whoever shows it tells it by its own clock. */
  readonly at?: string;
  /** The state of a station, which has a shape and a word of its own. */
  readonly state?: StationState;
}

/** A piece of the build sheet as data: the page, a PDF or a file of tables are made from the same blocks. */
export type SheetBlock =
  | { readonly kind: 'fact'; readonly label: string; readonly text: string; readonly at?: string }
  | {
      readonly kind: 'table';
      readonly key: string;
      readonly part: (typeof SHEET_PARTS)[number];
      readonly title: string;
      readonly head: readonly { readonly text: string; readonly isFigure: boolean }[];
      readonly rows: readonly { readonly key: string; readonly cells: readonly SheetCell[] }[];
    }
  /** Something that is said below everything else. */
  | { readonly kind: 'note'; readonly text: string };

/** A column of words. */
export function words(text: string) {
  return { text, isFigure: false } as const;
}

/** A column of figures. */
export function figures(text: string) {
  return { text, isFigure: true } as const;
}
