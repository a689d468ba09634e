import { parseLength, type Unit } from '@fettle/core';
import styled from 'styled-components';
import { bothUnits } from '../typing/LengthField.js';
import { Field } from '../ui/Field.js';
import type { LimitFaults, LimitText } from './limitText.js';

const Grid = styled.fieldset`
  display: grid;
  grid-template-columns: minmax(9rem, 1fr) minmax(9rem, 1fr) minmax(14rem, 2fr);
  gap: 0.25rem 0.75rem;
  border: 0;
  margin: 0;
  padding: 0;
  & + & { margin-top: 0.5rem; }
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); }
  legend { font-weight: 700; padding: 0.4rem 0 0.2rem; }
`;

interface LimitFieldsProps {
  readonly name: string;
  readonly unit: Unit;
  readonly text: LimitText;
  readonly faults: LimitFaults;
  readonly onChange: (text: LimitText) => void;
  /** Called when a box is left. */
  readonly onLeave?: () => void;
}

/** Low limit, high limit and the book they come from. */
export function LimitFields({ name, unit, text, faults, onChange, onLeave }: LimitFieldsProps) {
  const echo = (value: string) => {
    const parsed = parseLength(value, { unit, signed: 'sign' });
    return parsed.ok ? bothUnits(parsed.nm, unit) : ' ';
  };
  return (
    <Grid>
      <legend>{name}</legend>
      {(['low', 'high'] as const).map((side) => (
        <Field
          key={side}
          label={`${side === 'low' ? 'Low' : 'High'} limit, ${unit}`}
          figure
          value={text[side]}
          onChange={(value) => onChange({ ...text, [side]: value })}
          onBlur={() => onLeave?.()}
          fault={faults[side] ?? null}
          hint={echo(text[side])}
        />
      ))}
      <Field
        label="Source: book and page"
        value={text.source}
        maxLength={200}
        onChange={(source) => onChange({ ...text, source })}
        onBlur={() => onLeave?.()}
        fault={faults.source ?? null}
        hint=" "
      />
    </Grid>
  );
}
