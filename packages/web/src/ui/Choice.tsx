import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from 'react-aria-components';
import styled from 'styled-components';
import { fieldBox, fieldLabel } from './Field.js';

const Column = styled(Select)`
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  min-width: 0;
`;

const ChoiceLabel = styled(Label)`
  ${fieldLabel}
`;

const Box = styled(Button)`
  ${fieldBox}
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.4rem;
  text-align: left;
  cursor: pointer;
  > span { min-width: 0; overflow-wrap: anywhere; line-height: 1.15; }
  > svg { flex: none; }
  &[data-hovered] { border-color: var(--ink); }
`;

const List = styled(Popover)`
  min-width: var(--trigger-width);
  max-width: min(36rem, 92vw);
  background: var(--surface);
  border: var(--rule) solid var(--line-strong);
  border-radius: var(--radius);
  box-shadow: 0 6px 24px rgb(0 0 0 / 0.25);
  overflow: auto;
`;

const Items = styled(ListBox)`
  padding: 0.25rem;
  max-height: min(28rem, 60vh);
  overflow: auto;
  outline: none;
`;

const Item = styled(ListBoxItem)`
  display: flex;
  align-items: center;
  min-height: var(--target);
  padding: 0.25rem 0.6rem;
  border-radius: var(--radius);
  cursor: pointer;
  outline: none;
  &[data-focused] { background: var(--accent-soft); outline: 2px solid var(--accent); outline-offset: -2px; }
  &[data-selected] { font-weight: 700; }
`;

interface ChoiceProps<Value extends string> {
  /** What it says over the box; for screen readers alone where `isLabelHidden`. */
  readonly label: ReactNode;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly onChange: (value: Value) => void;
  readonly isLabelHidden?: boolean;
  /** True if it can be looked at only. */
  readonly isDisabled?: boolean;
}

/** One of a few values: a list that opens under its box, with rows that gloves can hit; letters jump to what begins with them. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  onChange,
  isLabelHidden,
  isDisabled = false,
}: ChoiceProps<Value>) {
  return (
    <Column
      value={value}
      isDisabled={isDisabled}
      onChange={(chosen) => chosen !== null && onChange(chosen as Value)}
      // An option of its own may stand for nothing chosen; where there is none of that value, the box stays empty.
      placeholder=" "
    >
      {isLabelHidden ? <Label className="visually-hidden">{label}</Label> : <ChoiceLabel>{label}</ChoiceLabel>}
      <Box data-value={value}>
        <SelectValue />
        <ChevronDown aria-hidden size={18} />
      </Box>
      <List>
        <Items>
          {options.map((option) => (
            <Item key={option.value} id={option.value} textValue={option.label} data-option={option.value}>
              {option.label}
            </Item>
          ))}
        </Items>
      </List>
    </Column>
  );
}
