import type { FocusEvent, ReactNode } from 'react';
import { FieldError, Input, Label, Text, TextField, type TextFieldProps } from 'react-aria-components';
import styled from 'styled-components';

const Column = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  min-width: 0;
`;

export const fieldLabel = `
  font-size: var(--size-small);
  font-weight: 600;
  color: var(--ink-soft);
`;

const FieldLabel = styled(Label)`
  ${fieldLabel}
`;

export const fieldBox = `
  min-height: var(--target);
  width: 100%;
  padding: 0 0.6rem;
  border: var(--rule) solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--surface);
  color: var(--ink);
  font: inherit;
`;

const Box = styled(Input)<{ $figure: boolean }>`
  ${fieldBox}
  ${({ $figure }) => $figure && 'font-family: var(--figures); font-size: var(--size-figure); font-variant-numeric: tabular-nums;'}
  &[data-invalid] { border: 2px solid var(--tight); }
`;

const Hint = styled(Text)`
  min-height: 1.25rem;
  font-size: var(--size-small);
  color: var(--ink-soft);
`;

const Unsaved = styled.strong`
  font-weight: 600;
  color: var(--tight);
`;

const Fault = styled(FieldError)`
  font-size: var(--size-small);
  font-weight: 600;
  color: var(--tight);
`;

interface FieldProps extends TextFieldProps {
  readonly label: ReactNode;
  /** Set in the figure face. */
  readonly figure?: boolean;
  /** Below the box, for instance the same size in the other unit. */
  readonly hint?: ReactNode;
  /** What is wrong with what stands there, and what would be right. */
  readonly fault?: string | null;
  readonly placeholder?: string;
  /** True if what stands there was typed before a reload and is not saved yet. */
  readonly isLeftOver?: boolean;
  /** What saves it. */
  readonly keptBy?: string;
  /** A question in place of the fault, with its answers. */
  readonly ask?: ReactNode;
}

/** A labelled box for one value, with its echo or its fault below. */
export function Field({
  label,
  figure = false,
  hint,
  fault,
  placeholder,
  isLeftOver = false,
  keptBy = 'saves on leaving the field',
  ask,
  onFocus,
  ...rest
}: FieldProps) {
  return (
    <Column {...rest} isInvalid={Boolean(fault) || Boolean(ask)}>
      {label !== '' && <FieldLabel>{label}</FieldLabel>}
      <Box
        $figure={figure}
        autoComplete={rest.autoComplete ?? 'off'}
        spellCheck={false}
        placeholder={placeholder ?? ''}
        onFocus={(event) => {
          // Whoever comes to a figure types another one: what stands there is selected.
          if (figure && !isLeftOver) event.target.select();
          onFocus?.(event as FocusEvent<HTMLInputElement>);
        }}
      />
      {ask}
      {ask ? null : fault ? (
        <Fault>{fault}</Fault>
      ) : isLeftOver ? (
        <Hint slot="description">
          <Unsaved>Not saved yet: {keptBy}.</Unsaved> {hint}
        </Hint>
      ) : (
        hint !== undefined && <Hint slot="description">{hint}</Hint>
      )}
    </Column>
  );
}
