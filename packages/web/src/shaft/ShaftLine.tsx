import type { CrankLayout } from '@fettle/core';
import { type ShaftColumn, type ShaftShow, shaftColumns } from '@fettle/core';
import { memo, type ReactNode, useMemo } from 'react';
import styled from 'styled-components';
import { Present } from '../live/Present.js';
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
  > .label { padding: 0.2rem 0.5rem 0.2rem 0.9rem; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); line-height: 1.2; }
  > .label small { display: block; font-weight: 400; font-size: 0.8125rem; }
  > .drawing { grid-column: 2 / -1; grid-row: 1; }
  > .front { grid-row: 1; align-self: center; padding-left: 0.9rem; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); }
  > .cell { padding: 0.15rem 0.2rem; min-width: 0; container-type: inline-size; text-align: center; align-self: stretch; display: flex; flex-direction: column; justify-content: center; }
  > .cell + .cell { border-left: var(--rule) solid var(--line); }
  > .ruled { border-top: var(--rule) solid var(--line); align-self: stretch; display: flex; flex-direction: column; justify-content: center; }
  > .wide { grid-column: 2 / -1; padding: 0.25rem 0.2rem 0.35rem; min-width: 0; width: min(100%, calc(100vw - 10rem)); }
  > .selected { background: var(--accent-soft); }
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
  readonly layout: CrankLayout;
  readonly rows: readonly ShaftRow[];
  readonly show?: ShaftShow;
  readonly drawingHeight?: number;
  readonly selected?: string | null;
  readonly onSelect?: (station: string) => void;
  /** Marks drawn on the shaft, by station. */
  readonly marks?: ReadonlyMap<string, string>;
}

/** Drawn anew where what it shows has changed, not with each figure that is typed under it. */
const Drawing = memo(ShaftDrawing);

function Line({ layout, rows, show = 'mains', drawingHeight = 132, selected = null, onSelect, marks }: ShaftLineProps) {
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
      {rows.map((row) => [
        <div key={row.key} className="label ruled">
          {row.label}
        </div>,
        'wide' in row ? (
          <div key={`${row.key} wide`} className="ruled wide">
            {row.wide}
          </div>
        ) : (
          columns.map((column) => (
            // A touch anywhere in the column opens the station; what has a press of its own, as the verdict, sees to it itself.
            <div
              key={`${row.key}-${column.key}`}
              className={column.key === selected ? 'cell ruled selected' : 'cell ruled'}
              data-station={column.key}
              onPointerUp={({ target }) => {
                if (!(target as Element).closest('button, a, input')) onSelect?.(column.key);
              }}
            >
              {row.cell(column)}
            </div>
          ))
        ),
      ])}
    </Board>
  );
}

/** The shaft is the page: the drawing along the top, one column a station under it. */
export const ShaftLine = memo(Line);
