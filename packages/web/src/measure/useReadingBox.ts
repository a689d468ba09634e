import {
  assessReading,
  isCoarse,
  type JobDocument,
  type Nanometres,
  partName,
  type Reading,
  type ReadingAssessment,
  withSign,
} from '@fettle/core';
import {
  type ChangeEvent,
  type FocusEvent,
  type KeyboardEvent,
  type RefObject,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import type { OpenJob } from '../job/useJob.js';
import { isFocusFree } from '../ui/keepFocus.js';
import { useKeptText } from '../ui/useKeptText.js';
import { textsOf } from './readingVerdictKey.js';
import { howTyped, isDeviation, type Place, settingFor, useSaveReading } from './useSaveReading.js';

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

export interface ReadingCellProps {
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

/** Where a key goes from a box; null where it stays in it. */
export function stepOf(
  { key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>,
  { selectionStart, selectionEnd, value }: Pick<HTMLInputElement, 'selectionStart' | 'selectionEnd' | 'value'>,
): Step | null {
  const isWhole = selectionStart === 0 && selectionEnd === value.length;
  const isAtStart = isWhole || (selectionStart === 0 && selectionEnd === 0);
  const isAtEnd = isWhole || (selectionStart === value.length && selectionEnd === value.length);
  switch (key) {
    case 'Enter':
      return shiftKey ? 'previous' : 'next';
    case 'ArrowUp':
      return 'up';
    case 'ArrowDown':
      return 'down';
    case 'ArrowLeft':
      return isAtStart ? 'left' : null;
    case 'ArrowRight':
      return isAtEnd ? 'right' : null;
    default:
      return null;
  }
}

/** What is told below a figure that was not finished, or has fewer digits than those beside it. */
const NOT_FINISHED = 'unfinished';
const FEWER_DIGITS = 'digit missing?';

export interface ReadingBox {
  /** What stands there, as it will be kept: a bare 2 on a zeroed gauge is +2. */
  readonly meant: string;
  readonly text: string;
  readonly assessment: ReadingAssessment;
  /** True if a reload came upon it before it was finished. */
  readonly isUnfinished: boolean;
  /** What is to be asked about the figure as it stands; null for nothing. */
  readonly doubt: string | null;
  /** The unit that it was typed in. */
  readonly typedIn: Reading['unit'];
  /** The setting size of a deviation that was taken on another one than the gauge has now; null for any other. */
  readonly onOther: Nanometres | null;
  readonly hold: (input: HTMLInputElement | null) => void;
  readonly onChange: (event: ChangeEvent<HTMLInputElement>) => void;
  readonly onFocus: (event: FocusEvent<HTMLInputElement>) => void;
  readonly onBlur: () => void;
  readonly onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/** What a figure in a box means, and what is to be asked about it, beside the other readings. */
function judged(
  job: OpenJob,
  { document, place, standing }: Pick<ReadingCellProps, 'document' | 'place' | 'standing'>,
  text: string,
  isTyped: boolean,
) {
  const { feature, station } = place;
  // What is typed counts from the setting size of now, what stands there from the one it was taken on.
  const current = document.measuring.setting[feature];
  const setting = isTyped ? current : settingFor(job, place, text);
  const others = job.readings.filter((reading) => reading !== standing);
  const how = howTyped(standing, place, text, isTyped);
  // A bare 2 on a zeroed gauge is +2; it is shown so once it is kept.
  const meant = isTyped ? withSign(text, document.unit, setting) : text;
  const assessment = assessReading(meant, setting, feature, document, others, station, how);
  return {
    current,
    meant,
    assessment,
    isShort: assessment.kind === 'fine' && isCoarse(meant, textsOf(others, feature)),
    typedIn: how.unit ?? document.unit,
    onOther: isDeviation(text) && setting !== current ? setting : null,
  };
}

/** The box of one reading: kept as typed, saved when it is left, judged with each key. */
export function useReadingBox(box: Omit<ReadingCellProps, 'told'>): ReadingBox {
  const { latest, document, place, standing, reason, acts } = box;
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
  const typed = useRef(text);
  typed.current = text;
  const { current, meant, assessment, isShort, typedIn, onOther } = judged(job, box, text, isTyped);
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

  return {
    meant,
    text,
    assessment,
    isUnfinished,
    doubt: isUnfinished ? NOT_FINISHED : isShort && !isFocused.current ? FEWER_DIGITS : null,
    typedIn,
    onOther,
    hold: (element) => {
      input.current = element;
      acts.hold(place, element && { input: element, give });
    },
    onChange: ({ target: { value } }) => {
      if (began.current === undefined) began.current = standing?.id ?? null;
      setText(value);
      setTyped(true);
      isKept.current = false;
      acts.typing(place, withSign(value, document.unit, current), 'typed');
    },
    onFocus: ({ target }) => {
      isFocused.current = true;
      isKept.current = false;
      // Whoever comes back to half a figure goes on with it.
      if (!isUnfinished) target.select();
      acts.typing(place, text, isUnfinished ? 'left' : 'kept');
    },
    onBlur: () => {
      isFocused.current = false;
      if (!isKept.current && !staysUnfinished) commit.current();
      isKept.current = false;
    },
    onKeyDown: (event) => {
      const step = stepOf(event, event.currentTarget);
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
    },
  };
}
