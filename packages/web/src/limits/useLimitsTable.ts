import { splitRange } from '@fettle/core';
import { type ClipboardEvent, type KeyboardEvent, type RefObject, useRef } from 'react';
import { NEXT_THING } from '../job/nextThing.js';
import { blockOf } from '../ui/TypingGrid.js';
import type { LimitFaults, LimitText } from './limitText.js';

/** One feature with its limits as they are typed. */
export interface LimitRow {
  readonly key: string;
  readonly name: string;
  /** A second, smaller line under its name. */
  readonly note?: string;
  readonly text: LimitText;
  readonly faults: LimitFaults;
}

export const LIMIT_COLUMNS = ['low', 'high', 'source'] as const;
export type LimitColumn = (typeof LIMIT_COLUMNS)[number];

/** A row with what was pasted or typed as a range put into both of its ends. */
function withEnds(text: LimitText, typed: string): LimitText | null {
  const ends = splitRange(typed);
  return ends && { ...text, low: ends[0], high: ends[1] };
}

/** A row of the table with what stands in it now. */
type ChangedRow = Pick<LimitRow, 'key' | 'text'>;

/** The rows that a block of cells changes, from one box to the right and down; null for a single figure, which the box itself takes. */
function rowsPasted(
  rows: readonly LimitRow[],
  row: number,
  column: LimitColumn,
  pasted: string,
): readonly ChangedRow[] | null {
  const block = blockOf(pasted);
  const { key, text } = rows[row]!;
  const range = column === 'source' ? null : withEnds(text, pasted);
  if (range) return [{ key, text: range }];
  if (block.length === 1 && block[0]!.length === 1) return null;
  const first = LIMIT_COLUMNS.indexOf(column);
  return block.flatMap((cells, down): ChangedRow[] => {
    const target = rows[row + down];
    if (!target) return [];
    const typed = cells.flatMap((cell, across) => {
      const to = LIMIT_COLUMNS[first + across];
      return to ? [[to, cell] as const] : [];
    });
    return [{ key: target.key, text: { ...target.text, ...Object.fromEntries(typed) } }];
  });
}

interface LimitsTyping {
  /** Goes on the element around the boxes; each says its place in `data-place`, as `3 low`. */
  readonly board: RefObject<HTMLDivElement | null>;
  readonly move: (event: KeyboardEvent<HTMLInputElement>, row: number, column: LimitColumn) => void;
  readonly paste: (event: ClipboardEvent<HTMLInputElement>, row: number, column: LimitColumn) => void;
  /** The source that stands for a row from above. */
  readonly sourceAbove: (row: number) => string;
  readonly leave: (row: number, column: LimitColumn, to: Element | null) => void;
}

/** What keys, pasting and leaving a box do in a table of limits. */
export function useLimitsTable(
  rows: readonly LimitRow[],
  onChange: (key: string, text: LimitText) => void,
  onLeave?: (key: string) => void,
): LimitsTyping {
  const board = useRef<HTMLDivElement>(null);
  const boxAt = (row: number, column: LimitColumn) =>
    board.current?.querySelector<HTMLInputElement>(`input[data-place="${row} ${column}"]`) ?? null;
  const go = (to: HTMLElement | null) => {
    to?.focus();
    if (to instanceof HTMLInputElement) to.select();
  };
  /**
   * Where Enter goes: to the next empty box, down the column, down the next, and then from the beginning. What is filled when this box is left, the other end
   * of a range or the sources below, is not empty. Where nothing is, on to what comes after the table.
   */
  const onward = (row: number, column: LimitColumn, value: string): HTMLElement | null => {
    const at = LIMIT_COLUMNS.indexOf(column);
    const isRange = column !== 'source' && withEnds(rows[row]!.text, value) !== null;
    const isFilled = (box: HTMLInputElement, other: number, to: LimitColumn) =>
      box.value.trim() !== '' ||
      (isRange && other === row && to !== 'source') ||
      (column === 'source' && value.trim() !== '' && rows[other]!.text.low.trim() !== '');
    const places = LIMIT_COLUMNS.flatMap((to, across) =>
      rows.map((_, other) => ({ to, other, order: across * rows.length + other })),
    );
    const from = at * rows.length + row;
    // From here on, and then from the beginning.
    const inTurn = [...places.filter(({ order }) => order > from), ...places.filter(({ order }) => order < from)];
    for (const { to, other } of inTurn) {
      const box = boxAt(other, to);
      if (box && !isFilled(box, other, to)) return box;
    }
    return (
      board.current?.closest('form')?.querySelector<HTMLElement>('[type="submit"]') ??
      document.getElementById(NEXT_THING)
    );
  };
  const move = (event: KeyboardEvent<HTMLInputElement>, row: number, column: LimitColumn) => {
    const { selectionStart, selectionEnd, value } = event.currentTarget;
    const isWhole = selectionStart === 0 && selectionEnd === value.length;
    const at = LIMIT_COLUMNS.indexOf(column);
    const steps: Record<string, (() => HTMLElement | null) | undefined> = {
      Enter: () => onward(row, column, value),
      ArrowDown: () => boxAt(row + 1, column),
      ArrowUp: () => boxAt(row - 1, column),
      ArrowRight:
        isWhole || selectionStart === value.length ? () => boxAt(row, LIMIT_COLUMNS[at + 1] ?? column) : undefined,
      ArrowLeft: isWhole || selectionEnd === 0 ? () => boxAt(row, LIMIT_COLUMNS[at - 1] ?? column) : undefined,
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    go(step());
  };
  const paste = (event: ClipboardEvent<HTMLInputElement>, row: number, column: LimitColumn) => {
    const changed = rowsPasted(rows, row, column, event.clipboardData.getData('text/plain'));
    if (!changed) return;
    event.preventDefault();
    for (const { key, text } of changed) onChange(key, text);
  };
  /** The source that stands for a row from above. */
  const sourceAbove = (row: number) =>
    rows.slice(0, row).findLast((one) => one.text.source.trim() !== '')?.text.source ?? '';
  const leave = (row: number, column: LimitColumn, to: Element | null) => {
    const { key, text } = rows[row]!;
    const range = column === 'source' ? null : withEnds(text, text[column]);
    const ends = range ?? text;
    // A source is typed once: what is typed below it comes from there too, until another one is named.
    const above = sourceAbove(row);
    const isWanting = ends.source.trim() === '' && ends.low.trim() !== '' && ends.high.trim() !== '' && above !== '';
    // Whoever goes on to its own source has one to type.
    const isCarried = isWanting && to !== boxAt(row, 'source');
    const carried = isCarried ? { ...ends, source: above } : ends;
    if (carried !== text) onChange(key, carried);
    onLeave?.(key);
    if (column === 'source' && text.source.trim() !== '') carryDown(row, text.source);
  };
  /** A source that was typed counts for the filled rows below it that have none, up to the next one that has. */
  const carryDown = (from: number, source: string) => {
    for (const { key, text } of rows.slice(from + 1)) {
      if (text.source.trim() !== '') return;
      if (text.low.trim() === '' || text.high.trim() === '') continue;
      onChange(key, { ...text, source });
      onLeave?.(key);
    }
  };
  return { board, move, paste, sourceAbove, leave };
}
