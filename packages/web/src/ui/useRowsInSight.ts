import { useVirtualizer } from '@tanstack/react-virtual';
import type { RefObject } from 'react';

/** A row before it has been measured, px; and so many are drawn beyond what is in sight, so that none is missing while one scrolls. */
const ROW_PX = 44;
const BEYOND = 12;

export interface RowsInSight {
  /** The places of the rows that are drawn; null where all are. */
  readonly inSight: readonly number[] | null;
  /** How high the rows are that are not drawn, before and after those that are, px. */
  readonly above: number;
  readonly below: number;
  /** Gives a row the focus, and scrolls to it first where it is not drawn. */
  readonly take: (at: number) => void;
  /** Told of each row that is drawn, to measure it. */
  readonly measure: (row: HTMLTableRowElement | null) => void;
}

/**
 * The rows of a table that are in sight, the others being room.
 *
 * @param isVirtual false: all are drawn
 */
export function useRowsInSight(
  rows: readonly { readonly id: string }[],
  isVirtual: boolean,
  frame: RefObject<HTMLElement | null>,
  body: RefObject<HTMLElement | null>,
): RowsInSight {
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: isVirtual,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: BEYOND,
    getItemKey: (at) => rows[at]!.id,
  });
  const items = isVirtual ? virtual.getVirtualItems() : null;
  const [above, below] =
    items && items.length > 0 ? [items[0]!.start, virtual.getTotalSize() - items.at(-1)!.end] : [0, 0];
  const focus = (at: number) => {
    const row = body.current?.querySelector<HTMLTableRowElement>(`tr[data-index="${at}"]`);
    if (!row) return false;
    // A row that keys do not go to can be given the focus all the same.
    if (row.tabIndex < 0) row.tabIndex = -1;
    row.focus();
    return true;
  };
  return {
    inSight: items?.map(({ index }) => index) ?? null,
    above,
    below,
    take: (at) => {
      if (focus(at)) return;
      virtual.scrollToIndex(at);
      // It is drawn in the next frame, or in the one after that.
      requestAnimationFrame(() => focus(at) || requestAnimationFrame(() => void focus(at)));
    },
    measure: virtual.measureElement,
  };
}
