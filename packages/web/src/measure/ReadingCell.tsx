import {
  assessReading,
  FEATURE_TABLE,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  otherUnit,
  partName,
  type ReadingAssessment,
  slotName,
} from '@fettle/core';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import styled from 'styled-components';
import type { OpenJob } from '../job/useJob.js';
import { fieldBox } from '../look/Field.js';
import { useKeptText } from '../look/useKeptText.js';
import { type Place, readingAt, settingFor, useSaveReading } from './useSaveReading.js';

/** Its states are told by an attribute, so that its styles are worked out once and not with every key. */
const Cell = styled.div`
  display: flex;
  flex-direction: column;
  align-items: stretch;
  min-width: 0;
  input {
    ${fieldBox}
    padding: 0 0.25rem;
    text-align: center;
    font-family: var(--figures);
    font-variant-numeric: tabular-nums;
    font-size: clamp(1rem, 1.45vw, var(--size-figure));
  }
  &[data-kind='doubtful'] input, &[data-kind='unreadable'] input { border: 2px dashed var(--tight); }
  &[data-kind='outside'] input { border: 2px solid var(--blocked); }
  input:focus { outline: 3px solid var(--accent); outline-offset: 1px; }
  .echo {
    margin-top: 2px; min-height: 1.2rem; text-align: center; font-family: var(--figures); font-size: 0.8125rem; color: var(--ink-soft); white-space: nowrap;
    overflow: hidden;
  }
  .echo.fault { color: var(--tight); font-weight: 700; font-family: var(--text); }
`;

/** Where the keyboard wants to go from a cell. */
export type Step = 'next' | 'previous' | 'up' | 'down' | 'left' | 'right';

interface ReadingCellProps {
  readonly job: OpenJob;
  readonly place: Place;
  /** Why a reading takes the place of another. */
  readonly reason: string;
  readonly inputRef: (element: HTMLInputElement | null) => void;
  readonly onStep: (step: Step) => void;
  readonly onFocus: (text: string) => void;
  readonly onText: (text: string) => void;
}

const MARKS: Partial<Record<ReadingAssessment['kind'], string>> = {
  unreadable: 'not a size',
  doubtful: 'in doubt',
  outside: 'off sheet',
};

function echoOf(assessment: ReadingAssessment, text: string, job: OpenJob): string {
  const mark = MARKS[assessment.kind];
  if (mark) return mark;
  if (assessment.kind !== 'fine') return ' ';
  const { unit } = job.document;
  // A deviation or another unit shows its size in the job's own unit; a plain size shows the other unit.
  const isPlain = /^[\d.,\s]+$/u.test(text);
  const shown = isPlain ? otherUnit(unit) : unit;
  return isPlain
    ? `${formatLength(assessment.nm, shown, shown === 'in' ? 5 : 4)} ${shown}`
    : formatExactLength(assessment.nm, shown, INSTRUMENT_DECIMALS[shown]);
}

/** One reading: kept as typed, saved when it is left, its size echoed below. */
export function ReadingCell({ job, place, reason, inputRef, onStep, onFocus, onText }: ReadingCellProps) {
  const save = useSaveReading(job, reason);
  const standing = readingAt(job.readings, place);
  const stored = standing?.text ?? '';
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: job.id, part: partName(place.feature, place.station), field: `${place.feature} ${place.slot}` },
    stored,
  );
  const isFocused = useRef(false);
  const typed = useRef(text);
  typed.current = text;
  const { feature, station, slot } = place;
  const setting = settingFor(job, place, text);
  const others = job.readings.filter((reading) => reading !== standing);
  const assessment = assessReading(text, setting, feature, job.document, others, station);

  const commit = useRef(() => {});
  commit.current = () => {
    const figure = typed.current.trim();
    settled(figure);
    save(place, figure);
  };
  useEffect(() => {
    // A reload came between typing and leaving the box.
    if (isLeftOver) commit.current();
  }, [isLeftOver]);
  useEffect(
    () => () => {
      if (isFocused.current) commit.current();
    },
    [],
  );
  useEffect(() => {
    // A tablet put to sleep or a closed tab must not take the figure in hand with it.
    const onHide = () => {
      if (isFocused.current && document.hidden) commit.current();
    };
    document.addEventListener('visibilitychange', onHide);
    return () => document.removeEventListener('visibilitychange', onHide);
  }, []);

  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const { selectionStart, selectionEnd, value } = input;
    const isWhole = selectionStart === 0 && selectionEnd === value.length;
    const atStart = isWhole || (selectionStart === 0 && selectionEnd === 0);
    const atEnd = isWhole || (selectionStart === value.length && selectionEnd === value.length);
    const step: Step | null =
      event.key === 'Enter'
        ? event.shiftKey
          ? 'previous'
          : 'next'
        : event.key === 'ArrowUp'
          ? 'up'
          : event.key === 'ArrowDown'
            ? 'down'
            : event.key === 'ArrowLeft' && atStart
              ? 'left'
              : event.key === 'ArrowRight' && atEnd
                ? 'right'
                : null;
    if (step) {
      event.preventDefault();
      onStep(step);
    } else if (event.key === 'Escape') {
      settled(stored);
      onText(stored);
    }
  };

  const isMarked = assessment.kind in MARKS;
  return (
    <Cell data-kind={assessment.kind}>
      <input
        ref={inputRef}
        aria-label={`${partName(feature, station)} ${FEATURE_TABLE[feature].name.toLowerCase()} ${slotName(slot).toLowerCase()}, ${job.document.unit}`}
        aria-invalid={assessment.kind === 'unreadable' || assessment.kind === 'doubtful'}
        inputMode={job.document.measuring.setting[feature] === null ? 'decimal' : 'text'}
        autoComplete="off"
        enterKeyHint="next"
        maxLength={64}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          onText(event.target.value);
        }}
        onFocus={(event) => {
          isFocused.current = true;
          event.target.select();
          onFocus(text);
        }}
        onBlur={() => {
          isFocused.current = false;
          commit.current();
        }}
        onKeyDown={onKeyDown}
      />
      <span className={isMarked ? 'echo fault' : 'echo'}>{echoOf(assessment, text, job)}</span>
    </Cell>
  );
}
