import {
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  otherUnit,
  type ParseContext,
  parseLength,
  type Unit,
} from '@fettle/core';
import { useEffect, useState } from 'react';
import { Field } from '../look/Field.js';

/** A length with its unit, at least as fine as an instrument shows it. */
export function lengthText(nm: Nanometres, unit: Unit): string {
  return `${formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
}

/** A length in both units, the job's own first. */
export function bothUnits(nm: Nanometres, unit: Unit): string {
  const other = otherUnit(unit);
  return `${lengthText(nm, unit)} = ${formatLength(nm, other, other === 'in' ? 5 : 4)} ${other}`;
}

interface LengthFieldProps {
  readonly label: string;
  readonly unit: Unit;
  /** What is stored; null when nothing is. */
  readonly value: Nanometres | null;
  readonly onCommit: (value: Nanometres | null) => void;
  readonly signed?: ParseContext['signed'];
  /** A fault known outside the field, shown when the text itself is fine. */
  readonly fault?: string | null;
  /** Whether the field may be left empty. */
  readonly optional?: boolean;
  /** Without the echo below, for tables that show it in a column of its own. */
  readonly compact?: boolean;
}

/**
 * One length, saved when it is left. The text stays as typed while it is no length; what is stored is echoed in both
 * units.
 */
export function LengthField({
  label,
  unit,
  value,
  onCommit,
  signed = 'sign',
  fault = null,
  optional = true,
  compact = false,
}: LengthFieldProps) {
  const stored = value === null ? '' : formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]).replace('−', '-');
  const [text, setText] = useState(stored);
  useEffect(() => setText(stored), [stored]);
  const parsed = parseLength(text, { unit, signed });
  const isEmpty = text.trim() === '';
  const own = isEmpty ? (optional ? null : 'Needed here.') : parsed.ok ? null : parsed.message;
  const commit = () => {
    if (isEmpty && optional) onCommit(null);
    else if (parsed.ok) {
      onCommit(parsed.nm);
      if (parsed.nm === value) setText(stored);
    }
  };
  return (
    <Field
      {...(compact
        ? { 'aria-label': label, label: '' }
        : { label, hint: parsed.ok ? bothUnits(parsed.nm, unit) : ' ' })}
      figure
      value={text}
      onChange={setText}
      onBlur={commit}
      onKeyDown={(event) => event.key === 'Enter' && commit()}
      fault={own ?? fault}
    />
  );
}
