import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';

const Box = styled(Checkbox)`
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: var(--target);
  cursor: pointer;
  .box {
    width: 1.4rem; height: 1.4rem; flex: none; display: grid; place-items: center;
    border: 2px solid var(--line-strong); border-radius: 4px; font-weight: 700; line-height: 1;
  }
  &[data-selected] .box { background: var(--accent); border-color: var(--accent); color: var(--on-accent); }
  &[data-focus-visible] { outline: 3px solid var(--accent); outline-offset: 2px; }
`;

interface TickProps {
  readonly isSelected: boolean;
  readonly onChange: (isSelected: boolean) => void;
  /** What is true when it is ticked. */
  readonly children: ReactNode;
}

/** A box to tick, with a target large enough for a glove. */
export function Tick({ isSelected, onChange, children }: TickProps) {
  return (
    <Box
      isSelected={isSelected}
      onChange={onChange}
      // A touch of its words leaves the focus where it was: a box that is being typed in would not be left, nor saved.
      onPointerDownCapture={({ currentTarget }) =>
        (currentTarget as HTMLElement).querySelector<HTMLInputElement>('input')?.focus({ preventScroll: true })
      }
    >
      <span className="box" aria-hidden>
        {isSelected ? '✓' : ''}
      </span>
      {children}
    </Box>
  );
}
