import { plainNumber } from '@fettle/core';
import { Field } from '../ui/Field.js';
import { type KeptPlace, useKeptText } from '../ui/useKeptText.js';
import { clashAsk } from './ClashAsk.js';

interface OptionalNumberProps {
  /** Which box it is: what is typed is kept under it on this device. */
  readonly kept: KeptPlace;
  readonly label: string;
  readonly value: number | null;
  readonly most: number;
  readonly onCommit: (value: number | null) => void;
}

/** A plain number above zero that may be left empty, saved when it is left; text that is none stays, with what is wrong. */
export function OptionalNumber({ kept, label, value, most, onCommit }: OptionalNumberProps) {
  const stored = value === null ? '' : String(value);
  const box = useKeptText(kept, stored);
  const { text, setText, settled, isLeftOver, clash } = box;
  const isEmpty = text.trim() === '';
  const read = plainNumber(text);
  const isRight = isEmpty || (read > 0 && read <= most);
  const commit = (isSure = false) => {
    if (!isRight || (clash !== null && !isSure)) return;
    settled(isEmpty ? '' : String(read));
    const next = isEmpty ? null : read;
    if (next !== value) onCommit(next);
  };
  return (
    <Field
      label={label}
      figure
      inputMode="decimal"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => commit()}
      ask={clashAsk(kept.of, box, () => commit(true))}
      fault={isRight ? null : `A number above 0, at most ${most}; or nothing.`}
    />
  );
}
