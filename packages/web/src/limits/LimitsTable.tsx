import {
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  LIMIT_KEYS,
  lengthText,
  likelyLimit,
  limitWord,
  otherUnit,
  parseLength,
  splitRange,
  type Unit,
} from '@fettle/core';
import { type ClipboardEvent, type KeyboardEvent, useId, useRef } from 'react';
import styled from 'styled-components';
import { NEXT_THING } from '../job/nextThing.js';
import { Button } from '../ui/Button.js';
import { fieldBox } from '../ui/Field.js';
import { blockOf } from '../ui/TypingGrid.js';
import type { LimitFaults, LimitText } from './limitText.js';

const Board = styled.div`
  display: grid;
  grid-template-columns: minmax(8.5rem, 1.3fr) 6.6rem 6.6rem minmax(6.5rem, 0.9fr) minmax(9rem, 1.6fr);
  gap: 0.2rem 0.5rem;
  align-items: center;
  margin-top: 0.4rem;
  > span { font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); }
  fieldset { display: contents; }
  legend { float: left; padding: 0; font-weight: 600; overflow-wrap: anywhere; line-height: 1.2; }
  legend small { display: block; font-weight: 400; color: var(--ink-soft); }
  input { ${fieldBox} padding: 0 0.45rem; min-width: 0; }
  input.figure { font-family: var(--figures); font-size: var(--size-figure); font-variant-numeric: tabular-nums; }
  input[aria-invalid='true'] { border: 2px solid var(--tight); }
  .echo { font-family: var(--figures); font-size: var(--size-small); color: var(--ink-soft); font-weight: 400; line-height: 1.2; }
  .fault { grid-column: 2 / -1; font-size: var(--size-small); font-weight: 600; color: var(--tight); }
  @media (max-width: 640px) {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    > span { display: none; }
    legend, .echo, .source, .fault { grid-column: 1 / -1; }
    legend { margin-top: 0.6rem; }
  }
`;

/** One feature with its limits as they are typed. */
export interface LimitRow {
  readonly key: string;
  readonly name: string;
  /** A second, smaller line under its name. */
  readonly note?: string;
  readonly text: LimitText;
  readonly faults: LimitFaults;
}

interface LimitsTableProps {
  readonly rows: readonly LimitRow[];
  readonly unit: Unit;
  readonly onChange: (key: string, text: LimitText) => void;
  /** Called when a box of a row is left. */
  readonly onLeave?: (key: string) => void;
  /** Called when the whole table is left: what is half typed then is not being typed any more. */
  readonly onLeaveAll?: () => void;
}

const COLUMNS = ['low', 'high', 'source'] as const;
type Column = (typeof COLUMNS)[number];
const LABELS: Readonly<Record<Column, string>> = {
  low: 'low limit',
  high: 'high limit',
  source: 'source: book and page',
};

/** The ends of a limit that cannot be right as they were typed, and what they may have been meant as. */
function doubtsOf(key: string, text: LimitText, unit: Unit) {
  // A row of a single main ends with what it limits.
  const limit = LIMIT_KEYS.find((one) => key === one || key.endsWith(` ${one}`));
  if (limit === undefined) return [];
  return (['low', 'high'] as const).flatMap((column) => {
    const parsed = parseLength(text[column], { unit, signed: 'sign' });
    const likely = parsed.ok && parsed.nm !== 0 ? likelyLimit(limit, parsed.nm, unit) : null;
    if (!parsed.ok || likely === null) return [];
    const meant = likely.map(({ nm }) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]));
    return [
      {
        column,
        said: `${lengthText(parsed.nm, unit)} for ${limitWord(limit)}? Check the book.`,
        likely: meant,
      },
    ];
  });
}

/** Both ends in the other unit: what was typed is seen twice. */
function echoOf({ low, high }: LimitText, unit: Unit): string {
  const other = otherUnit(unit);
  return [low, high]
    .map((text) => parseLength(text, { unit, signed: 'sign' }))
    .map((read) => (read.ok ? formatLength(read.nm, other, other === 'in' ? 5 : 4) : '·'))
    .join(' – ');
}

/** A row with what was pasted or typed as a range put into both of its ends. */
function withEnds(text: LimitText, typed: string): LimitText | null {
  const ends = splitRange(typed);
  return ends && { ...text, low: ends[0], high: ends[1] };
}

/**
 * The limits of a data sheet in one table, typed as from a book: Enter goes to the next empty box, down a column first, arrows move, a block from a spreadsheet or a
 * range is pasted as it is, and a source stands for the rows below it until another one is typed.
 */
export function LimitsTable({ rows, unit, onChange, onLeave, onLeaveAll }: LimitsTableProps) {
  const board = useRef<HTMLDivElement>(null);
  const id = useId();
  const boxAt = (row: number, column: Column) =>
    board.current?.querySelector<HTMLInputElement>(`input[data-place="${row} ${column}"]`) ?? null;
  const go = (to: HTMLElement | null) => {
    to?.focus();
    if (to instanceof HTMLInputElement) to.select();
  };
  /**
   * Where Enter goes: to the next empty box, down the column, down the next, and then from the beginning. What is filled when this box is left, the other end
   * of a range or the sources below, is not empty. Where nothing is, on to what comes after the table.
   */
  const onward = (row: number, column: Column, value: string): HTMLElement | null => {
    const at = COLUMNS.indexOf(column);
    const isRange = column !== 'source' && withEnds(rows[row]!.text, value) !== null;
    const isFilled = (box: HTMLInputElement, other: number, to: Column) =>
      box.value.trim() !== '' ||
      (isRange && other === row && to !== 'source') ||
      (column === 'source' && value.trim() !== '' && rows[other]!.text.low.trim() !== '');
    const places = COLUMNS.flatMap((to, across) =>
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
  const move = (event: KeyboardEvent<HTMLInputElement>, row: number, column: Column) => {
    const { selectionStart, selectionEnd, value } = event.currentTarget;
    const isWhole = selectionStart === 0 && selectionEnd === value.length;
    const at = COLUMNS.indexOf(column);
    const steps: Record<string, (() => HTMLElement | null) | undefined> = {
      Enter: () => onward(row, column, value),
      ArrowDown: () => boxAt(row + 1, column),
      ArrowUp: () => boxAt(row - 1, column),
      ArrowRight: isWhole || selectionStart === value.length ? () => boxAt(row, COLUMNS[at + 1] ?? column) : undefined,
      ArrowLeft: isWhole || selectionEnd === 0 ? () => boxAt(row, COLUMNS[at - 1] ?? column) : undefined,
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    go(step());
  };
  const paste = (event: ClipboardEvent<HTMLInputElement>, row: number, column: Column) => {
    const pasted = event.clipboardData.getData('text/plain');
    const block = blockOf(pasted);
    const range = column === 'source' ? null : withEnds(rows[row]!.text, pasted);
    if (block.length === 1 && block[0]!.length === 1 && !range) return;
    event.preventDefault();
    if (range) return onChange(rows[row]!.key, range);
    block.forEach((cells, down) => {
      const target = rows[row + down];
      if (!target) return;
      const first = COLUMNS.indexOf(column);
      const typed = cells.flatMap((cell, across) => {
        const to = COLUMNS[first + across];
        return to ? [[to, cell] as const] : [];
      });
      onChange(target.key, { ...target.text, ...Object.fromEntries(typed) });
    });
  };
  /** The source that stands for a row from above. */
  const sourceAbove = (row: number) =>
    rows.slice(0, row).findLast((one) => one.text.source.trim() !== '')?.text.source ?? '';
  const leave = (row: number, column: Column, to: Element | null) => {
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
  return (
    <Board ref={board} onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && onLeaveAll?.()}>
      <span>Limits</span>
      <span>Low, {unit}</span>
      <span>High, {unit}</span>
      <span>In {otherUnit(unit) === 'in' ? 'inches' : 'mm'}</span>
      <span>Source: book and page</span>
      {rows.map(({ key, name, note, text, faults }, row) => {
        const told = COLUMNS.flatMap((column) => faults[column] ?? []);
        const faultId = `${id} ${key}`.replaceAll(/[^\w-]/gu, '-');
        const box = (column: Column) => (
          <input
            className={column === 'source' ? 'source' : 'figure'}
            data-place={`${row} ${column}`}
            aria-label={`${name}: ${LABELS[column]}${column === 'source' ? '' : `, ${unit}`}`}
            aria-invalid={faults[column] !== undefined}
            {...(told.length > 0 ? { 'aria-describedby': faultId } : {})}
            inputMode={column === 'source' ? 'text' : 'decimal'}
            maxLength={column === 'source' ? 200 : 64}
            autoComplete="off"
            spellCheck={false}
            value={text[column]}
            onChange={(event) => onChange(key, { ...text, [column]: event.target.value })}
            onKeyDown={(event) => move(event, row, column)}
            onPaste={(event) => paste(event, row, column)}
            placeholder={column === 'source' && text.low.trim() !== '' ? sourceAbove(row) : ''}
            onBlur={(event) => leave(row, column, event.relatedTarget)}
          />
        );
        return (
          <fieldset key={key} aria-label={name}>
            <legend>
              {name}
              {note !== undefined && <small> {note}</small>}
            </legend>
            {box('low')}
            {box('high')}
            <span className="echo">{echoOf(text, unit)}</span>
            {box('source')}
            {doubtsOf(key, text, unit).map(({ column, said, likely }) => (
              <span key={column} className="fault" role="status">
                {said}{' '}
                {likely.map((meant) => (
                  <Button key={meant} onPress={() => onChange(key, { ...text, [column]: meant })}>
                    It is {meant}
                  </Button>
                ))}
              </span>
            ))}
            {told.length > 0 && (
              <span className="fault" id={faultId} role="alert">
                {told.join(' ')}
              </span>
            )}
          </fieldset>
        );
      })}
    </Board>
  );
}
