import {
  FEATURE_TABLE,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  otherUnit,
  partName,
  type ReadingAssessment,
  slotName,
  type Unit,
} from '@fettle/core';
import { type CSSProperties, memo, useId } from 'react';
import styled from 'styled-components';
import { fieldBox } from '../ui/Field.js';
import { STOP } from '../ui/useOneStop.js';
import { type ReadingCellProps, useReadingBox } from './useReadingBox.js';

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

const VERDICTS: Partial<Record<ReadingAssessment['kind'], string>> = {
  unreadable: 'not a size',
  doubtful: 'suspect',
  outside: 'out of limits',
};

/** @param onOther the setting size of a deviation that was taken on another one than the gauge has now */
function echoOf(
  assessment: ReadingAssessment,
  text: string,
  unit: Unit,
  typedIn: Unit,
  onOther: Nanometres | null,
): string {
  const verdict = VERDICTS[assessment.kind];
  if (verdict) return verdict;
  if (assessment.kind !== 'fine') return ' ';
  // A deviation or another unit shows its size in the job's own unit; a plain size shows the other unit.
  const isBare = /^[\d.,\s]+$/u.test(text);
  if (isBare && typedIn !== unit) {
    return `${typedIn}: ${formatExactLength(assessment.nm, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
  }
  const isPlain = isBare;
  const shown = isPlain ? otherUnit(unit) : unit;
  return isPlain
    ? `${formatLength(assessment.nm, shown, shown === 'in' ? 5 : 4)} ${shown}`
    : [assessment.nm, ...(onOther === null ? [] : [onOther])]
        .map((nm) => formatExactLength(nm, shown, INSTRUMENT_DECIMALS[shown]))
        .join(' on ');
}

/** Plain figures stand with their points under each other, however many digits they have; anything else in the middle. */
function onThePoint(text: string): CSSProperties {
  const plain = /^[+\-−]?\d*(?:[.,](\d*))?$/u.exec(text.trim());
  if (!plain || text.trim() === '') return {};
  return { textAlign: 'right', paddingLeft: 0, paddingRight: `calc(50% - ${(plain[1]?.length ?? 0) + 0.5}ch)` };
}

/** One reading: kept as typed, saved when it is left, its size echoed below. */
function Box(props: ReadingCellProps) {
  const { document, place } = props;
  const { feature, station, slot } = place;
  const box = useReadingBox(props);
  const { text, assessment, isUnfinished, doubt } = box;
  const echo = useId();
  const isFaulty = doubt !== null || assessment.kind in VERDICTS;
  return (
    <Cell data-kind={isUnfinished ? 'doubtful' : assessment.kind}>
      <input
        ref={box.hold}
        data-reading=""
        {...STOP}
        style={onThePoint(text)}
        aria-label={`${partName(feature, station)} ${FEATURE_TABLE[feature].name.toLowerCase()} ${slotName(slot).toLowerCase()}, ${document.unit}`}
        aria-invalid={assessment.kind === 'unreadable' || assessment.kind === 'doubtful'}
        {...(isFaulty ? { 'aria-describedby': echo } : {})}
        inputMode={document.measuring.setting[feature] === null ? 'decimal' : 'text'}
        autoComplete="off"
        spellCheck={false}
        enterKeyHint="next"
        maxLength={64}
        value={text}
        onChange={box.onChange}
        onFocus={box.onFocus}
        onBlur={box.onBlur}
        onKeyDown={box.onKeyDown}
      />
      <span id={echo} className={isFaulty ? 'echo fault' : 'echo'}>
        {doubt ?? echoOf(assessment, box.meant, document.unit, box.typedIn, box.onOther)}
      </span>
    </Cell>
  );
}

/** One reading in its box; drawn anew only where something of it has changed. */
export const ReadingCell = memo(Box);
