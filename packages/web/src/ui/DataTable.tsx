import { type OnChangeFn, type SortingState, useTable } from '@tanstack/react-table';
import { ArrowDown, ArrowUp, ArrowUpDown } from 'lucide-react';
import { useCallback, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useNarrow } from '../base/useNarrow.js';
import { OneRow, type RowProps } from './DataRow.js';
import { compared, type DataColumn, features } from './dataColumns.js';
import { Table } from './Panel.js';
import { ShowMore } from './ShowMore.js';
import { SortChoice } from './SortChoice.js';
import { LongTable } from './TextUntilEntered.js';
import { usePrinting } from './usePrinting.js';
import { useRowsInSight } from './useRowsInSight.js';
import { useShown } from './useShown.js';

const Scroll = styled.div`
  overflow: auto;
  max-height: min(75vh, 60rem);
  @media print { max-height: none; overflow: visible; }
  thead th {
    position: sticky; top: 0; z-index: 1; background: var(--surface); box-shadow: 0 var(--rule) 0 var(--line-strong);
  }
  th button { all: unset; cursor: pointer; font: inherit; color: inherit; }
  th > button, th > span { display: inline-flex; align-items: center; gap: 0.25rem; min-height: 2rem; white-space: nowrap; }
  th button:focus-visible { outline: 3px solid var(--accent); outline-offset: 1px; }
  th button svg { flex: none; opacity: 0.45; }
  th[aria-sort] button { color: var(--ink); }
  th[aria-sort] button svg { opacity: 1; }
  tbody tr:focus-visible { outline: 3px solid var(--accent); outline-offset: -3px; }
  tr[aria-current='true'] td { background: var(--accent-soft); }
  @media (max-width: 640px) {
    max-height: none; overflow: visible;
    table, tbody { display: block; }
    thead { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
    tbody tr { display: block; border: var(--rule) solid var(--line-strong); border-radius: var(--radius); margin-bottom: 0.6rem; padding: 0.3rem 0.5rem; }
    tbody td { display: flex; justify-content: space-between; align-items: baseline; gap: 1rem; width: auto; min-width: 0; border: 0; text-align: right; white-space: normal; }
    tbody td > div { flex: 0 0 9rem; }
    tbody td:empty { display: none; }
    tbody td[data-head]::before { content: attr(data-head); flex: none; font-family: var(--text); font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); text-align: left; }
  }
`;

interface DataTableProps<Item> {
  /** What the table lists, for screen readers. */
  readonly label: string;
  readonly items: readonly Item[];
  readonly columns: readonly DataColumn<Item>[];
  readonly keyOf: (item: Item) => string;
  /** What a row is, where there may be very many: the first are shown, and more when they are asked for. */
  readonly what?: string;
  /** What Enter on a row does; with it the arrow keys go from row to row. */
  readonly onOpen?: (item: Item) => void;
  readonly isCurrent?: (item: Item) => boolean;
  /** True if something in the row was typed and is not saved: such a row is shown however long the list is, as the current one is. */
  readonly isTyped?: (item: Item) => boolean;
}

/** With more rows than this only those in sight are drawn. */
const MOST_DRAWN = 120;
/** With more rows than this the boxes of a table are text until they are entered. */
const MOST_BOXES = 60;

interface SortedRows<Item> extends Pick<DataTableProps<Item>, 'items' | 'columns' | 'keyOf'> {
  readonly sorting: SortingState;
  readonly onSort: OnChangeFn<SortingState>;
}

/** The rows in their order: that of the items, until a head is pressed. */
function useSortedRows<Item>({ items, columns, keyOf, sorting, onSort }: SortedRows<Item>) {
  const definitions = useMemo(
    () =>
      columns.map(({ key, sortBy }) => ({
        id: key,
        accessorFn: (item: Item) => sortBy?.(item) ?? undefined,
        sortUndefined: 'last' as const,
        enableSorting: sortBy !== undefined,
        sortDescFirst: false,
        sortFn: (one: { getValue: (id: string) => unknown }, other: { getValue: (id: string) => unknown }) =>
          compared(one.getValue(key) as string | number, other.getValue(key) as string | number),
      })),
    [columns],
  );
  return useTable({
    features,
    columns: definitions as never,
    data: items as never,
    getRowId: keyOf as never,
    state: { sorting },
    onSortingChange: onSort,
  });
}

interface HeadProps<Item> {
  readonly table: ReturnType<typeof useSortedRows<Item>>;
  readonly columns: readonly DataColumn<Item>[];
  readonly isNarrow: boolean;
}

/** The heads of the columns, each of which sorts by its own. */
function Head<Item>({ table, columns, isNarrow }: HeadProps<Item>) {
  const byKey = new Map(columns.map((column) => [column.key, column]));
  return (
    <thead>
      {table.getHeaderGroups().map((group) => (
        <tr key={group.id}>
          {group.headers.map(({ id, column }) => {
            const { head, isFigure } = byKey.get(id)!;
            const sorted = column.getIsSorted();
            return (
              <th
                key={id}
                className={isFigure ? 'number' : undefined}
                {...(sorted ? { 'aria-sort': sorted === 'asc' ? 'ascending' : 'descending' } : {})}
              >
                {column.getCanSort() && !isNarrow ? (
                  <button type="button" onClick={() => column.toggleSorting()}>
                    {head}
                    {sorted === 'asc' && <ArrowUp aria-hidden size={14} />}
                    {sorted === 'desc' && <ArrowDown aria-hidden size={14} />}
                    {!sorted && <ArrowUpDown aria-hidden size={14} />}
                  </button>
                ) : (
                  <span>{head}</span>
                )}
              </th>
            );
          })}
        </tr>
      ))}
    </thead>
  );
}

/**
 * A table that lists things: a head that stays in sight and sorts, figures to the right, rows that the arrow keys go along. It starts in
 * the order of its items.
 */
export function DataTable<Item>({
  label,
  items,
  columns,
  keyOf,
  what = 'rows',
  onOpen,
  isCurrent,
  isTyped,
}: DataTableProps<Item>) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const body = useRef<HTMLTableSectionElement>(null);
  const table = useSortedRows({ items, columns, keyOf, sorting, onSort: setSorting });
  const { rows } = table.getRowModel();
  const isNarrow = useNarrow();
  const isPrinting = usePrinting();
  const frame = useRef<HTMLDivElement>(null);
  const reveal = useRef<(at: number) => void>(() => {});
  const { shown, most, showMore } = useShown(
    rows,
    body,
    ({ original }) => {
      const item = original as Item;
      return (isCurrent?.(item) ?? false) || (isTyped?.(item) ?? false);
    },
    (at) => reveal.current(at),
  );
  // In a hand the page scrolls, not the table: there all that was asked for is drawn.
  const isVirtual = shown.length > MOST_DRAWN && !isNarrow && !isPrinting && 'ResizeObserver' in globalThis;
  const virtual = useRowsInSight(shown, isVirtual, frame, body);
  const { inSight, above, below, take } = virtual;
  reveal.current = take;
  const go = useRef<RowProps<Item>['onKey']>(null);
  go.current = (event, item, at) => {
    if (event.target !== event.currentTarget) return;
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: shown.length - 1 }[event.key];
    if (event.key === 'Enter') onOpen?.(item);
    else if (next !== undefined && next >= 0 && next < shown.length) take(next);
    else if (next === undefined) return;
    event.preventDefault();
  };
  const onKey = useCallback<NonNullable<RowProps<Item>['onKey']>>((...pressed) => go.current?.(...pressed), []);
  const drawn =
    inSight === null ? shown.map((row, at) => ({ row, at })) : inSight.map((at) => ({ row: shown[at]!, at }));
  const gap = (height: number) =>
    height > 0 && (
      <tr aria-hidden style={{ height }}>
        <td colSpan={columns.length} style={{ padding: 0, border: 0 }} />
      </tr>
    );
  const scroll = (
    <LongTable.Provider value={shown.length > MOST_BOXES}>
      <Scroll ref={frame}>
        <Table aria-label={label} {...(isVirtual ? { 'aria-rowcount': shown.length + 1 } : {})}>
          <Head table={table} columns={columns} isNarrow={isNarrow} />
          <tbody ref={body}>
            {gap(above)}
            {drawn.map(({ row, at }) => (
              <OneRow
                key={row.id}
                item={row.original as Item}
                at={at}
                columns={columns}
                isCurrent={isCurrent?.(row.original as Item) ?? false}
                isVirtual={isVirtual}
                onKey={onOpen ? onKey : null}
                measure={isVirtual ? virtual.measure : undefined}
              />
            ))}
            {gap(below)}
          </tbody>
        </Table>
      </Scroll>
    </LongTable.Provider>
  );
  const sortable = columns.filter(({ sortBy }) => sortBy !== undefined);
  return (
    <>
      {isNarrow && sortable.length > 0 && shown.length > 1 && (
        <SortChoice label={label} columns={sortable} sorting={sorting} onSort={setSorting} />
      )}
      {scroll}
      <ShowMore
        shown={shown.length}
        all={rows.length}
        what={what}
        {...(shown.length > most ? { which: 'the first and the selected ones' } : {})}
        onMore={showMore}
      />
    </>
  );
}
