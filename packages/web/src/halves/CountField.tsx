import { useState } from 'react';
import { Field } from '../look/Field.js';
import { notedText } from '../look/typingNotes.js';
import { type KeptPlace, keptKey, useKeptText } from '../look/useKeptText.js';

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
}

/** How many halves there are, in a table: saved when the box is left. */
export function CountField({ kept, label, value, most, empty, onCommit }: CountFieldProps) {
  const { text, setText, settled } = useKeptText(kept, value === null ? '' : String(value));
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
  const commit = () => {
    const wanted = isEmpty ? null : Number(typed);
    if (!isRight) return;
    if (wanted === value) return settled(stored);
    setSending(true);
    void Promise.resolve(onCommit(wanted)).then((worked) => {
      setSending(false);
      if (worked !== false) settled(typed, text);
    });
  };
  const kind = empty === undefined ? 'A whole number.' : 'A whole number, or empty.';
  const unsaved = `Not saved: the drawer has ${value === null ? 'no count' : value}.`;
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
      onKeyDown={(event) => event.key === 'Enter' && commit()}
      fault={!isRight ? kind : isUnsaved ? unsaved : null}
      placeholder={empty ?? ''}
    />
  );
}
