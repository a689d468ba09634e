import {
  assessReading,
  FEATURE_TABLE,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  isCoarse,
  type JobDocument,
  type Nanometres,
  otherUnit,
  partName,
  type Reading,
  type ReadingAssessment,
  slotName,
  type Unit,
  withSign,
} from '@fettle/core';
import {
  type CSSProperties,
  type KeyboardEvent,
  memo,
  type RefObject,
  useId,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import styled from 'styled-components';
import type { OpenJob } from '../job/useJob.js';
import { fieldBox } from '../ui/Field.js';
import { isFocusFree } from '../ui/keepFocus.js';
import { useKeptText } from '../ui/useKeptText.js';
import { STOP } from '../ui/useOneStop.js';
import { textsOf } from './readingVerdictKey.js';
import { howTyped, isDeviation, type Place, settingFor, useSaveReading } from './useSaveReading.js';

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

/** What stands in a box: what is kept, what is being typed, or what a reload left before it was kept. */
export type BoxState = 'kept' | 'typed' | 'left';

/** A box of a reading, as it is held on to. */
export interface HeldBox {
  readonly input: HTMLInputElement;
  /** Puts a figure into it that is kept already: what stood there unfinished is given up. */
  readonly give: (text: string) => void;
}

/** What a box of a reading asks for. */
export interface CellActs {
  /** Goes from a box to its neighbour. */
  readonly step: (place: Place, where: Step) => void;
  /** Keeps hold of a box, so that it can be gone to. */
  readonly hold: (place: Place, box: HeldBox | null) => void;
  /** Tells what stands in the box in hand. */
  readonly typing: (place: Place, text: string, is: BoxState) => void;
}

interface ReadingCellProps {
  /** The engine as it is now. */
  readonly latest: RefObject<OpenJob>;
  /** Its document; with the readings beside it only what is told of this one counts. */
  readonly document: JobDocument;
  readonly place: Place;
  /** The reading that stands there. */
  readonly standing: Reading | null;
  /** What is to be said of it, which may change with the others. */
  readonly told: string;
  /** Why a reading takes the place of another. */
  readonly reason: string;
  readonly acts: CellActs;
}

const MARKS: Partial<Record<ReadingAssessment['kind'], string>> = {
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
  const mark = MARKS[assessment.kind];
  if (mark) return mark;
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

/** What is told below a figure that was not finished, or has fewer digits than those beside it. */
const NOT_FINISHED = 'unfinished';
const FEWER_DIGITS = 'digit missing?';

/** One reading: kept as typed, saved when it is left, its size echoed below. */
function ReadingBox({ latest, document, place, standing, told: _, reason, acts }: ReadingCellProps) {
  const job = latest.current;
  const save = useSaveReading(latest, reason);
  const stored = standing?.text ?? '';
  const { feature, station, slot } = place;
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: job.id, part: partName(feature, station), field: `${feature} ${slot}` },
    stored,
  );
  // A figure that a reload came upon is not finished: it is a reading once it is left again.
  const [isUnfinished, setUnfinished] = useState(isLeftOver && text.trim() !== stored);
  const [isTyped, setTyped] = useState(false);
  // The reading that stood there when typing began.
  const began = useRef<string | null | undefined>(undefined);
  const isFocused = useRef(false);
  // What a key has kept already is not sent once more when the box is left after it.
  const isKept = useRef(false);
  const input = useRef<HTMLInputElement | null>(null);
  const echo = useId();
  const typed = useRef(text);
  typed.current = text;
  // What is typed counts from the setting size of now, what stands there from the one it was taken on.
  const current = document.measuring.setting[feature];
  const setting = isTyped ? current : settingFor(job, place, text);
  const others = job.readings.filter((reading) => reading !== standing);
  const how = howTyped(standing, place, text, isTyped);
  // A bare 2 on a zeroed gauge is +2; it is shown so once it is kept.
  const meant = isTyped ? withSign(text, document.unit, setting) : text;
  const assessment = assessReading(meant, setting, feature, document, others, station, how);
  const isShort = assessment.kind === 'fine' && isCoarse(meant, textsOf(others, feature));
  // Half a figure that a reload left is not a reading because somebody went by: over one that stands, or as it is, it takes a key.
  const staysUnfinished = isUnfinished && !isTyped && (stored !== '' || isShort || assessment.kind !== 'fine');

  const give = (figure: string) => {
    began.current = undefined;
    settled(figure);
    setUnfinished(false);
    setTyped(false);
  };
  const commit = useRef(() => {});
  commit.current = () => {
    const now = latest.current.document;
    const figure = isTyped
      ? withSign(typed.current.trim(), now.unit, now.measuring.setting[feature])
      : typed.current.trim();
    const from = began.current;
    give(figure);
    acts.typing(place, figure, 'kept');
    save(place, figure, isTyped ? now.measuring.setting[feature] : undefined, from);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, where a reload left the figure
  useLayoutEffect(() => {
    if (isUnfinished && isFocusFree()) input.current?.focus();
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
      // Where one box is shown at a time it goes away with the step, and is never left. Enter is meant; an arrow goes by.
      if (event.key === 'Enter' || !staysUnfinished) commit.current();
      isKept.current = true;
      acts.step(place, step);
    } else if (event.key === 'Escape') {
      give(stored);
      acts.typing(place, stored, 'kept');
    }
  };

  const mark = isUnfinished ? NOT_FINISHED : isShort && !isFocused.current ? FEWER_DIGITS : null;
  const isMarked = mark !== null || assessment.kind in MARKS;
  return (
    <Cell data-kind={isUnfinished ? 'doubtful' : assessment.kind}>
      <input
        ref={(element) => {
          input.current = element;
          acts.hold(place, element && { input: element, give });
        }}
        data-reading=""
        {...STOP}
        style={onThePoint(text)}
        aria-label={`${partName(feature, station)} ${FEATURE_TABLE[feature].name.toLowerCase()} ${slotName(slot).toLowerCase()}, ${document.unit}`}
        aria-invalid={assessment.kind === 'unreadable' || assessment.kind === 'doubtful'}
        {...(isMarked ? { 'aria-describedby': echo } : {})}
        inputMode={document.measuring.setting[feature] === null ? 'decimal' : 'text'}
        autoComplete="off"
        spellCheck={false}
        enterKeyHint="next"
        maxLength={64}
        value={text}
        onChange={(event) => {
          if (began.current === undefined) began.current = standing?.id ?? null;
          setText(event.target.value);
          setTyped(true);
          isKept.current = false;
          acts.typing(place, withSign(event.target.value, document.unit, current), 'typed');
        }}
        onFocus={(event) => {
          isFocused.current = true;
          isKept.current = false;
          // Whoever comes back to half a figure goes on with it.
          if (!isUnfinished) event.target.select();
          acts.typing(place, text, isUnfinished ? 'left' : 'kept');
        }}
        onBlur={() => {
          isFocused.current = false;
          if (!isKept.current && !staysUnfinished) commit.current();
          isKept.current = false;
        }}
        onKeyDown={onKeyDown}
      />
      <span id={echo} className={isMarked ? 'echo fault' : 'echo'}>
        {mark ??
          echoOf(
            assessment,
            meant,
            document.unit,
            how.unit ?? document.unit,
            isDeviation(text) && setting !== current ? setting : null,
          )}
      </span>
    </Cell>
  );
}

/** One reading in its box; drawn anew only where something of it has changed. */
export const ReadingCell = memo(ReadingBox);
