import type { ClipboardEvent, KeyboardEvent, ReactNode } from 'react';
import { useId, useRef } from 'react';
import styled from 'styled-components';
import { fieldBox } from './Field.js';

const Grid = styled.table`
  /* What only a screen reader reads is placed by it, and scrolls with it. */
  position: relative;
  border-collapse: collapse;
  th { text-align: left; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); padding: 0.2rem 0.3rem; }
  th { white-space: nowrap; }
  th.mark { font-size: var(--size-body); font-weight: 700; color: var(--ink); }
  tbody th.mark { vertical-align: top; padding-top: 0.8rem; }
  td { padding: 0.15rem 0.2rem; vertical-align: top; }
  input { ${fieldBox} padding: 0 0.5rem; min-width: 0; }
  input.figure { font-family: var(--figures); font-variant-numeric: tabular-nums; }
  input[aria-invalid='true'] { border: 2px solid var(--tight); }
  .fault { display: block; max-width: 14rem; font-size: var(--size-small); font-weight: 600; color: var(--tight); line-height: 1.2; }
`;

export interface GridColumn {
  readonly key: string;
  /** What stands above the column. */
  readonly label: ReactNode;
  readonly width: string;
  readonly isFigure?: boolean;
}

interface TypingGridProps {
  /** What the grid is, for screen readers and tests. */
  readonly name: string;
  readonly columns: readonly GridColumn[];
  readonly rowCount: number;
  readonly corner?: ReactNode;
  /** What stands in front of a row; nothing leaves the column out. */
  readonly rowHead?: (row: number) => ReactNode;
  /** What a box is called: `A × 2`, `mark 1, low`. */
  readonly label: (row: number, column: number) => string;
  readonly value: (row: number, column: number) => string;
  readonly fault: (row: number, column: number) => string | null;
  readonly onType: (row: number, column: number, text: string) => void;
  /** A block pasted from a spreadsheet, with the box where it was pasted. */
  readonly onPaste: (row: number, column: number, block: readonly (readonly string[])[]) => void;
  /** Called when a box is left. */
  readonly onLeave?: (row: number, column: number) => void;
  /** Under a box, for instance what it means. */
  readonly below?: (row: number, column: number) => ReactNode;
  /** At the end of a row. */
  readonly rowEnd?: (row: number) => ReactNode;
}

/** Splits what a spreadsheet puts on the clipboard: tabs between cells, lines between rows. */
export function blockOf(text: string): string[][] {
  return text
    .replace(/\r\n?/gu, '\n')
    .replace(/\n$/u, '')
    .split('\n')
    .map((line) => line.split('\t').map((cell) => cell.trim()));
}

/**
 * A grid of boxes that is typed as from a book: Enter goes down the column and then to the top of the next, arrows move, a block pasted
 * from a spreadsheet fills it from where it was pasted.
 */
export function TypingGrid(props: TypingGridProps) {
  const { name, columns, rowCount, corner, rowHead, label, value, fault, onType, onPaste, onLeave, below, rowEnd } =
    props;
  const table = useRef<HTMLTableElement>(null);
  const id = useId();
  const go = (row: number, column: number) => {
    const box = table.current?.querySelector<HTMLInputElement>(`input[data-place="${row} ${column}"]`);
    box?.focus();
    box?.select();
  };
  const move = (event: KeyboardEvent<HTMLInputElement>, row: number, column: number) => {
    const { selectionStart, selectionEnd, value: typed } = event.currentTarget;
    const isAtStart = selectionStart === 0 && (selectionEnd === 0 || selectionEnd === typed.length);
    const isAtEnd = selectionEnd === typed.length && (selectionStart === typed.length || selectionStart === 0);
    const last = columns.length - 1;
    const steps: Record<string, (() => void) | undefined> = {
      Enter: () => (row + 1 < rowCount ? go(row + 1, column) : column < last ? go(0, column + 1) : undefined),
      ArrowDown: () => go(row + 1, column),
      ArrowUp: () => go(row - 1, column),
      ArrowRight: isAtEnd ? () => go(row, column + 1) : undefined,
      ArrowLeft: isAtStart ? () => go(row, column - 1) : undefined,
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    step();
  };
  const paste = (event: ClipboardEvent<HTMLInputElement>, row: number, column: number) => {
    const block = blockOf(event.clipboardData.getData('text/plain'));
    if (block.length === 1 && block[0]!.length === 1) return;
    event.preventDefault();
    onPaste(row, column, block);
  };
  return (
    <Grid ref={table} aria-label={name}>
      <thead>
        <tr>
          {rowHead && <th scope="col">{corner}</th>}
          {columns.map((column) => (
            <th key={column.key} scope="col" className={rowHead ? 'mark' : ''}>
              {column.label}
            </th>
          ))}
          {rowEnd && (
            <th scope="col">
              <span className="visually-hidden">Remove</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: rowCount }, (_, row) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place in the grid
          <tr key={row}>
            {rowHead && (
              <th scope="row" className="mark">
                {rowHead(row)}
              </th>
            )}
            {columns.map((column, at) => {
              const wrong = fault(row, at);
              return (
                <td key={column.key} style={{ width: column.width, minWidth: column.width }}>
                  <input
                    className={column.isFigure ? 'figure' : ''}
                    data-place={`${row} ${at}`}
                    aria-label={label(row, at)}
                    aria-invalid={wrong !== null}
                    {...(wrong === null ? {} : { 'aria-describedby': `${id} ${row} ${at}`.replaceAll(' ', '-') })}
                    value={value(row, at)}
                    autoComplete="off"
                    spellCheck={false}
                    onChange={(event) => onType(row, at, event.target.value)}
                    onKeyDown={(event) => move(event, row, at)}
                    onPaste={(event) => paste(event, row, at)}
                    onFocus={(event) => event.target.select()}
                    onBlur={() => onLeave?.(row, at)}
                  />
                  {wrong !== null && (
                    <span className="fault" id={`${id} ${row} ${at}`.replaceAll(' ', '-')}>
                      {wrong}
                    </span>
                  )}
                  {below?.(row, at)}
                </td>
              );
            })}
            {rowEnd && <td>{rowEnd(row)}</td>}
          </tr>
        ))}
      </tbody>
    </Grid>
  );
}
