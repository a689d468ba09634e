import { parseLength, type TypedLength } from '@fettle/core';
import { bothUnits } from '../typing/LengthField.js';
import { Field } from '../ui/Field.js';
import { type KeptPlace, useKeptText } from '../ui/useKeptText.js';
import type { CameApartWork } from './useCameApart.js';

/** A length read of an old part, saved when it is left; what is no length stays as it was typed. */
export function OldLength({
  work,
  kept,
  label,
  value,
  onKeep,
}: {
  readonly work: CameApartWork;
  readonly kept: Omit<KeptPlace, 'of'>;
  readonly label: string;
  readonly value: TypedLength | null;
  readonly onKeep: (length: TypedLength | null) => void;
}) {
  const { job, document, lengthOf } = work;
  const { unit } = document;
  const stored = value?.text ?? '';
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job.id, ...kept }, stored);
  const parsed = parseLength(text, { unit, signed: 'sign' });
  const fault = parsed.ok ? (parsed.nm < 0 ? 'Enter 0 or more.' : null) : parsed.message;
  return (
    <Field
      label={`${label}, ${unit}`}
      figure
      inputMode="decimal"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => {
        settled(text.trim());
        if (text.trim() !== stored) onKeep(lengthOf(text));
      }}
      fault={text.trim() === '' ? null : fault}
      hint={parsed.ok ? bothUnits(parsed.nm, unit) : ' '}
    />
  );
}
