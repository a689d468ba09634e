import { type ComponentProps, useRef } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';

/** Where a button leads somewhere it is a link: the same to look at and to hit. */
export const ButtonLink = styled.a`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.5rem;
  min-height: var(--target);
  min-width: var(--target);
  padding: 0 1rem;
  border: var(--rule) solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--surface);
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  &:hover { border-color: var(--ink); }
`;

/** A button that gloves can hit. `$kind` main: the one clear action of a view; quiet: beside text. */
export const Button = styled(AriaButton)<{ $kind?: 'main' | 'plain' | 'quiet' }>`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.5rem;
  min-height: var(--target);
  min-width: var(--target);
  padding: 0 ${({ $kind }) => ($kind === 'quiet' ? '0.6rem' : '1rem')};
  border: var(--rule) solid ${({ $kind }) => ($kind === 'quiet' ? 'transparent' : $kind === 'main' ? 'var(--accent)' : 'var(--line-strong)')};
  border-radius: var(--radius);
  background: ${({ $kind }) => ($kind === 'main' ? 'var(--accent)' : $kind === 'quiet' ? 'transparent' : 'var(--surface)')};
  color: ${({ $kind }) => ($kind === 'main' ? 'var(--on-accent)' : $kind === 'quiet' ? 'var(--accent)' : 'var(--ink)')};
  font: inherit;
  font-weight: 600;
  text-align: center;
  cursor: pointer;
  &[data-hovered] { filter: brightness(1.06); border-color: var(--ink); }
  &[data-disabled] { opacity: 0.55; cursor: default; }
`;

/**
 * A button that comes to mean something else by itself (a search is over, and "Cancel" becomes "Fit them"; another person ticks the pass off):
 * it does what it said when it was touched, and where it says something else when it is let go, nothing.
 */
export function SteadyButton({ onPressStart, onPress, ...rest }: ComponentProps<typeof Button>) {
  const said = useRef<string | null>(null);
  return (
    <Button
      {...rest}
      onPressStart={(event) => {
        said.current = event.target.textContent;
        onPressStart?.(event);
      }}
      onPress={(event) => {
        if (event.target.textContent === said.current) onPress?.(event);
      }}
    />
  );
}
