import type { ReactNode } from 'react';
import { useId } from 'react';
import styled from 'styled-components';
import { fieldBox, fieldLabel } from './Field.js';

const Column = styled.div`
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  min-width: 0;
`;

const ChoiceLabel = styled.label`
  ${fieldLabel}
`;

const Box = styled.select`
  ${fieldBox}
`;

interface ChoiceProps<Value extends string> {
  readonly label: ReactNode;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly onChange: (value: Value) => void;
}

/** One of a few values. The system's own list: it works on every tablet and with gloves. */
export function Choice<Value extends string>({ label, value, options, onChange }: ChoiceProps<Value>) {
  const id = useId();
  return (
    <Column>
      <ChoiceLabel htmlFor={id}>{label}</ChoiceLabel>
      <Box id={id} value={value} onChange={(event) => onChange(event.target.value as Value)}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </Box>
    </Column>
  );
}
