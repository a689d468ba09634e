import { useState } from 'react';
import { clashAsk } from '../typing/ClashAsk.js';
import { Button } from '../ui/Button.js';
import { enterDown } from '../ui/enterDown.js';
import { Field } from '../ui/Field.js';
import { TextUntilEntered } from '../ui/TextUntilEntered.js';
import { notedText } from '../ui/typingNotes.js';
import { type KeptPlace, keptKey, useKeptText } from '../ui/useKeptText.js';

interface CountFieldProps {
  /** Which box it is: what is typed is kept under it on this device. */
  readonly kept: KeptPlace;
  readonly label: string;
  /** Null where it is left empty. */
  readonly value: number | null;
  readonly most: number;
  /** Shown in the empty box where it may be left empty; without it a number is needed. */
  readonly empty?: string;
  /** @returns false, now or later, when it was refused: what was typed then stays in the box */
  // biome-ignore lint/suspicious/noConfusingVoidType: a change that cannot be refused returns nothing
  readonly onCommit: (value: number | null) => void | Promise<boolean>;
  /** The counts beside it: one that is ten times as many is asked about. */
  readonly beside?: readonly number[];
}

/** A count so many times those beside it has a digit too many, or an Enter too few. A setting of ours. */
const FAR_MORE = 10;

/** The middle one of some counts above zero; null where there are none. */
function usualCount(counts: readonly number[]): number | null {
  const own = counts.filter((count) => count > 0).sort((one, other) => one - other);
  return own[Math.floor(own.length / 2)] ?? null;
}

/** How many halves there are, in a table: saved when the box is left. */
export function CountField(props: CountFieldProps) {
  const { kept, label, value, empty } = props;
  return (
    <TextUntilEntered
      kept={kept}
      label={label}
      text={value === null ? '' : String(value)}
      {...(empty === undefined ? {} : { empty })}
    >
      <CountBox {...props} />
    </TextUntilEntered>
  );
}

function CountBox({ kept, label, value, most, empty, onCommit, beside = [] }: CountFieldProps) {
  const box = useKeptText(kept, value === null ? '' : String(value));
  const { text, setText, settled, clash } = box;
  const typed = text.trim();
  const isEmpty = typed === '' && empty !== undefined;
  const isRight = isEmpty || (/^\d+$/u.test(typed) && Number(typed) <= most);
  const stored = value === null ? '' : String(value);
  const [isFocused, setFocused] = useState(false);
  // What stands there and was not taken is marked, also after a reload, until it is.
  const [isSending, setSending] = useState(false);
  // Only what somebody typed here can be unsaved: a count that comes from elsewhere is shown a moment later.
  const isTyped = notedText(keptKey(kept)) !== null;
  const isUnsaved = isTyped && isRight && !isFocused && !isSending && typed !== stored;
  const usual = usualCount(beside);
  const isFarMore = !isEmpty && isRight && usual !== null && Number(typed) >= FAR_MORE * usual && typed !== stored;
  const [isMeant, setMeant] = useState<string | null>(null);
  const isAsked = isFarMore && isMeant !== typed;
  const theirs = isSending ? null : clash;
  const commit = (isSure = false) => {
    if (!isSure && (theirs !== null || isAsked)) return;
    const wanted = isEmpty ? null : Number(typed);
    if (!isRight) return;
    if (wanted === value) return settled(stored);
    setSending(true);
    void Promise.resolve(onCommit(wanted)).then((worked) => {
      setSending(false);
      if (worked !== false) settled(typed, text);
    });
  };
  const kind = empty === undefined ? 'Enter a whole number.' : 'Enter a whole number, or leave blank.';
  const unsaved = `Not saved: stock has ${value === null ? 'no count' : value}.`;
  return (
    <Field
      aria-label={label}
      label=""
      figure
      inputMode="numeric"
      value={text}
      onChange={setText}
      onFocus={() => setFocused(true)}
      onBlur={() => {
        setFocused(false);
        commit();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && !enterDown(event.currentTarget as HTMLElement)) commit();
      }}
      ask={
        theirs !== null ? (
          clashAsk(kept.of, box, () => commit(true))
        ) : isAsked && !isFocused ? (
          <span role="alert">
            {typed}? The others are about {usual}.{' '}
            <Button
              onPress={() => {
                setMeant(typed);
                commit(true);
              }}
            >
              Save {typed}
            </Button>
          </span>
        ) : null
      }
      fault={!isRight ? kind : isUnsaved ? unsaved : null}
      placeholder={empty ?? ''}
    />
  );
}
