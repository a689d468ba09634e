import type { CrankLayout } from '@fettle/core';
import { type ShaftColumn, type ShaftShow, shaftColumns } from '@fettle/core';
import { memo, type ReactNode, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { Present } from '../live/Present.js';
import { useOneStop } from '../ui/useOneStop.js';
import { ShaftDrawing } from './ShaftDrawing.js';

const Board = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: 7rem repeat(${({ $columns }) => $columns}, minmax(4.6rem, 1fr));
  align-items: center;
  padding: 0.25rem 0.75rem 0.5rem 0;
  background: var(--surface);
  border: var(--rule) solid var(--line);
  border-radius: var(--radius);
  overflow-x: auto;
  /* What only a screen reader reads is placed by it, and scrolls with it. */
  position: relative;
  > table, > table > thead, > table > tbody, > table > * > tr { display: contents; }
  th { text-align: left; }
  .label { padding: 0.2rem 0.5rem 0.2rem 0.9rem; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); line-height: 1.2; }
  .label small { display: block; font-weight: 400; font-size: 0.8125rem; }
  > .drawing { grid-column: 2 / -1; grid-row: 1; }
  > .front { grid-row: 1; align-self: center; padding-left: 0.9rem; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); }
  tr > .cell { padding: 0.15rem 0.2rem; min-width: 0; container-type: inline-size; text-align: center; align-self: stretch; display: flex; flex-direction: column; justify-content: center; }
  tr > .cell + .cell { border-left: var(--rule) solid var(--line); }
  .ruled { border-top: var(--rule) solid var(--line); align-self: stretch; display: flex; flex-direction: column; justify-content: center; }
  .wide { grid-column: 2 / -1; padding: 0.25rem 0.2rem 0.35rem; min-width: 0; width: min(100%, calc(100vw - 10rem)); }
  .heads > .cell { font-weight: 700; font-size: var(--size-small); color: var(--ink-soft); }
  .selected { background: var(--accent-soft); }
`;

export type ShaftRow = {
  readonly key: string;
  readonly label: ReactNode;
} & (
  | {
      /** What stands in this row under a station. */
      readonly cell: (column: ShaftColumn) => ReactNode;
    }
  | {
      /** What stands under all stations together: a stamped row, as it is typed. */
      readonly wide: ReactNode;
    }
);

interface ShaftLineProps {
  /** What its table is called for a screen reader; no two on a page alike. */
  readonly label: string;
  readonly layout: CrankLayout;
  readonly rows: readonly ShaftRow[];
  readonly show?: ShaftShow;
  readonly drawingHeight?: number;
  /** True if the names of the stations stand over their columns, where no drawing names them. */
  readonly areNamesShown?: boolean;
  readonly selected?: string | null;
  readonly onSelect?: (station: string) => void;
  /** Marks drawn on the shaft, by station. */
  readonly marks?: ReadonlyMap<string, string>;
}

/** Drawn anew where what it shows has changed, not with each figure that is typed under it. */
const Drawing = memo(ShaftDrawing);

function Line({
  label,
  layout,
  rows,
  show = 'mains',
  drawingHeight = 132,
  areNamesShown = false,
  selected = null,
  onSelect,
  marks,
}: ShaftLineProps) {
  const table = useRef<HTMLTableElement>(null);
  const stop = useOneStop(table);
  const columns = useMemo(() => shaftColumns(layout, show), [layout, show]);
  return (
    <Board $columns={columns.length}>
      {drawingHeight > 0 && <span className="front">← Front</span>}
      {drawingHeight > 0 && (
        <div className="drawing">
          <Drawing
            layout={layout}
            height={drawingHeight}
            show={show}
            selected={selected}
            {...(onSelect ? { onSelect } : {})}
            {...(marks ? { marks } : {})}
          />
        </div>
      )}
      {drawingHeight > 0 && <Present columns={columns} />}
      <table ref={table} aria-label={label} onFocus={stop.onFocus} onKeyDown={stop.onKeyDown}>
        <thead>
          <tr className="heads">
            <th className={areNamesShown ? 'label' : ''}>
              <span className={areNamesShown ? '' : 'visually-hidden'}>Station</span>
            </th>
            {columns.map(({ key }) => (
              <th key={key} scope="col" className={areNamesShown ? 'cell' : ''}>
                <span className={areNamesShown ? '' : 'visually-hidden'}>{key}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <th scope="row" className="label ruled">
                {row.label}
              </th>
              {'wide' in row ? (
                <td colSpan={columns.length} className="ruled wide">
                  {row.wide}
                </td>
              ) : (
                columns.map((column) => (
                  // A touch anywhere in the column opens the station; what has a press of its own, as the verdict, sees to it itself.
                  <td
                    key={column.key}
                    className={column.key === selected ? 'cell ruled selected' : 'cell ruled'}
                    data-station={column.key}
                    onPointerUp={({ target }) => {
                      if (!(target as Element).closest('button, a, input')) onSelect?.(column.key);
                    }}
                  >
                    {row.cell(column)}
                  </td>
                ))
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </Board>
  );
}

/** The shaft is the page: the drawing along the top, and under it a table with one column a station, one stop of the Tab key. */
export const ShaftLine = memo(Line);
