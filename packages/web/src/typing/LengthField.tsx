import {
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  likelyFigures,
  type Nanometres,
  otherUnit,
  type ParseContext,
  parseLength,
  type Span,
  type Unit,
} from '@fettle/core';
import { enterDown } from '../ui/enterDown.js';
import { Field } from '../ui/Field.js';
import { TextUntilEntered } from '../ui/TextUntilEntered.js';
import { type KeptPlace, useKeptText } from '../ui/useKeptText.js';
import { clashAsk, SlipAsk } from './ClashAsk.js';

/** A length in both units, the job's own first. */
export function bothUnits(nm: Nanometres, unit: Unit): string {
  const other = otherUnit(unit);
  return `${lengthText(nm, unit)} = ${formatLength(nm, other, other === 'in' ? 5 : 4)} ${other}`;
}

interface LengthFieldProps {
  /** Which box it is: what is typed is kept under it on this device. */
  readonly kept: KeptPlace;
  readonly label: string;
  readonly unit: Unit;
  /** What is stored; null when nothing is. */
  readonly value: Nanometres | null;
  readonly onCommit: (value: Nanometres | null) => void;
  readonly signed?: ParseContext['signed'];
  /** Says what is wrong with a length that cannot be right here, or null; such a length is not saved. */
  readonly check?: (value: Nanometres) => string | null;
  /** What it can be; what lies outside is asked about before it is saved. */
  readonly span?: Span | null;
  /** True if the field may be left empty. */
  readonly optional?: boolean;
  /** Without the echo below, for tables that show it in a column of its own. */
  readonly compact?: boolean;
}

/**
 * One length, saved when it is left. The text stays as typed while it is no length; what is stored is echoed in both
 * units.
 */
export function LengthField(props: LengthFieldProps) {
  const { kept, label, unit, value, compact = false } = props;
  if (!compact) return <LengthBox {...props} />;
  return (
    <TextUntilEntered kept={kept} label={label} text={storedText(value, unit)}>
      <LengthBox {...props} />
    </TextUntilEntered>
  );
}

/** What stands in the box of a length. */
function storedText(value: Nanometres | null, unit: Unit): string {
  return value === null ? '' : formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]).replace('−', '-');
}

function LengthBox({
  kept,
  label,
  unit,
  value,
  onCommit,
  signed = 'sign',
  check,
  span = null,
  optional = true,
  compact = false,
}: LengthFieldProps) {
  const stored = storedText(value, unit);
  const box = useKeptText(kept, stored);
  const { text, setText, settled, isLeftOver, clash } = box;
  const parsed = parseLength(text, { unit, signed });
  const isEmpty = text.trim() === '';
  const fault = isEmpty
    ? optional
      ? null
      : 'Needed here.'
    : parsed.ok
      ? (check?.(parsed.nm) ?? null)
      : parsed.message;
  const likely = span !== null && parsed.ok && parsed.nm !== value ? likelyFigures(parsed.nm, unit, span) : null;
  const commit = (isSure = false) => {
    if ((clash !== null || likely !== null) && !isSure) return;
    if (text === stored) return settled(stored);
    if (fault !== null) return;
    const next = parsed.ok ? parsed.nm : null;
    settled(next === value ? stored : text);
    onCommit(next);
  };
  return (
    <Field
      {...(compact
        ? { 'aria-label': label, label: '' }
        : { label, hint: parsed.ok ? bothUnits(parsed.nm, unit) : ' ' })}
      figure
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => commit()}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && !(compact && enterDown(event.currentTarget as HTMLElement))) commit();
      }}
      ask={
        clash === null ? (
          likely === null || fault !== null ? null : (
            <SlipAsk
              said={text}
              likely={likely.map(({ nm }) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]))}
              onLikely={setText}
              onSure={() => commit(true)}
            />
          )
        ) : (
          clashAsk(kept.of, box, () => commit(true))
        )
      }
      fault={fault}
    />
  );
}
