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
  type Unit,
} from '@fettle/core';
import { useId } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { fieldBox } from '../ui/Field.js';
import type { LimitText } from './limitText.js';
import { LIMIT_COLUMNS, type LimitColumn, type LimitRow, useLimitsTable } from './useLimitsTable.js';

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

interface LimitsTableProps {
  readonly rows: readonly LimitRow[];
  readonly unit: Unit;
  readonly onChange: (key: string, text: LimitText) => void;
  /** Called when a box of a row is left. */
  readonly onLeave?: (key: string) => void;
  /** Called when the whole table is left: what is half typed then is not being typed any more. */
  readonly onLeaveAll?: () => void;
}

const LABELS: Readonly<Record<LimitColumn, string>> = {
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

interface LimitBoxesProps {
  readonly row: LimitRow;
  /** Its place in the table, from 0. */
  readonly at: number;
  readonly unit: Unit;
  readonly typing: ReturnType<typeof useLimitsTable>;
  readonly onChange: (key: string, text: LimitText) => void;
}

/** One limit: its two ends and its source, with what is doubtful or wrong about them below. */
function LimitBoxes({ row: { key, name, note, text, faults }, at, unit, typing, onChange }: LimitBoxesProps) {
  const faultId = useId();
  const told = LIMIT_COLUMNS.flatMap((column) => faults[column] ?? []);
  const box = (column: LimitColumn) => (
    <input
      className={column === 'source' ? 'source' : 'figure'}
      data-place={`${at} ${column}`}
      aria-label={`${name}: ${LABELS[column]}${column === 'source' ? '' : `, ${unit}`}`}
      aria-invalid={faults[column] !== undefined}
      {...(told.length > 0 ? { 'aria-describedby': faultId } : {})}
      inputMode={column === 'source' ? 'text' : 'decimal'}
      maxLength={column === 'source' ? 200 : 64}
      autoComplete="off"
      spellCheck={false}
      value={text[column]}
      onChange={(event) => onChange(key, { ...text, [column]: event.target.value })}
      onKeyDown={(event) => typing.move(event, at, column)}
      onPaste={(event) => typing.paste(event, at, column)}
      placeholder={column === 'source' && text.low.trim() !== '' ? typing.sourceAbove(at) : ''}
      onBlur={(event) => typing.leave(at, column, event.relatedTarget)}
    />
  );
  return (
    <fieldset aria-label={name}>
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
}

/**
 * The limits of a data sheet in one table, typed as from a book: Enter goes to the next empty box, down a column first, arrows move, a block from a spreadsheet or a
 * range is pasted as it is, and a source stands for the rows below it until another one is typed.
 */
export function LimitsTable({ rows, unit, onChange, onLeave, onLeaveAll }: LimitsTableProps) {
  const typing = useLimitsTable(rows, onChange, onLeave);
  return (
    <Board ref={typing.board} onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && onLeaveAll?.()}>
      <span>Limits</span>
      <span>Low, {unit}</span>
      <span>High, {unit}</span>
      <span>In {otherUnit(unit) === 'in' ? 'inches' : 'mm'}</span>
      <span>Source: book and page</span>
      {rows.map((row, at) => (
        <LimitBoxes key={row.key} row={row} at={at} unit={unit} typing={typing} onChange={onChange} />
      ))}
    </Board>
  );
}
