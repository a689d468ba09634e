import { plainNumber } from '@fettle/core';
import { Field } from '../ui/Field.js';
import { type KeptPlace, useKeptText } from '../ui/useKeptText.js';
import { clashAsk } from './ClashAsk.js';

interface NumberFieldProps {
  /** Which box it is: what is typed is kept under it on this device. */
  readonly kept: KeptPlace;
  readonly label: string;
  readonly value: number;
  readonly most: number;
  readonly onCommit: (value: number) => void;
}

/** A plain number from zero up, saved when it is left; text that is none stays, with what is wrong. */
export function NumberField({ kept, label, value, most, onCommit }: NumberFieldProps) {
  const stored = String(value);
  const box = useKeptText(kept, stored);
  const { text, setText, settled, isLeftOver, clash } = box;
  const read = plainNumber(text);
  const isRight = read >= 0 && read <= most;
  const commit = (isSure = false) => {
    if (!isRight || (clash !== null && !isSure)) return;
    settled(String(read));
    if (read !== value) onCommit(read);
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
      fault={isRight ? null : `A number from 0 to ${most}.`}
    />
  );
}
