import { type KeyboardEvent, memo } from 'react';
import type { DataColumn } from './dataColumns.js';

export interface RowProps<Item> {
  readonly item: Item;
  /** Its place in the list, of so many. */
  readonly at: number;
  readonly columns: readonly DataColumn<Item>[];
  readonly isCurrent: boolean;
  /** True if it is one of those in sight only: it says then which one it is. */
  readonly isVirtual: boolean;
  readonly onKey: ((event: KeyboardEvent<HTMLTableRowElement>, item: Item, at: number) => void) | null;
  readonly measure: ((row: HTMLTableRowElement | null) => void) | undefined;
}

/** One row; drawn anew only when its item is another, or what the columns show. */
function PlainRow<Item>({ item, at, columns, isCurrent, isVirtual, onKey, measure }: RowProps<Item>) {
  return (
    <tr
      ref={measure}
      data-index={at}
      {...(isVirtual ? { 'aria-rowindex': at + 2 } : {})}
      {...(onKey ? { tabIndex: 0, onKeyDown: (event) => onKey(event, item, at) } : {})}
      {...(isCurrent ? { 'aria-current': 'true' as const } : {})}
    >
      {columns.map(({ key, head, cell, isFigure, className }) => {
        const own = typeof className === 'function' ? className(item) : className;
        const names = [isFigure ? 'number' : '', own ?? ''].filter(Boolean).join(' ');
        return (
          <td
            key={key}
            className={names === '' ? undefined : names}
            {...(typeof head === 'string' ? { 'data-head': head } : {})}
          >
            {cell(item)}
          </td>
        );
      })}
    </tr>
  );
}
export const OneRow = memo(PlainRow) as typeof PlainRow;
