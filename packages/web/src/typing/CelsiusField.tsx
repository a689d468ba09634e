import { plainNumber } from '@fettle/core';
import { Field } from '../ui/Field.js';
import { type KeptPlace, useKeptText } from '../ui/useKeptText.js';

/** The coldest and the warmest that a part on a bench is, °C. */
const COLDEST = -60;
const WARMEST = 300;

interface CelsiusFieldProps {
  readonly kept: KeptPlace;
  readonly label: string;
  readonly value: number | null;
  readonly onCommit: (value: number | null) => void;
}

/** A temperature, or none; saved when it is left. */
export function CelsiusField({ kept, label, value, onCommit }: CelsiusFieldProps) {
  const { text, setText, settled, isLeftOver } = useKeptText(kept, value === null ? '' : String(value));
  const typed = text.trim();
  const read = plainNumber(typed, true);
  const isRight = typed === '' || (read >= COLDEST && read <= WARMEST);
  return (
    <Field
      label={label}
      figure
      inputMode="text"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={isRight ? null : `Degrees Celsius from ${COLDEST} to ${WARMEST}, or empty.`}
      onBlur={() => {
        if (!isRight) return;
        settled(typed === '' ? '' : String(read));
        const next = typed === '' ? null : read;
        if (next !== value) onCommit(next);
      }}
    />
  );
}
