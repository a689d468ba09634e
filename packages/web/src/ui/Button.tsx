import { type ComponentProps, useLayoutEffect, useRef } from 'react';
import { useObjectRef } from 'react-aria';
import { Button as AriaButton } from 'react-aria-components';
import styled, { css } from 'styled-components';

/** What is pressed, button or link: its content in the middle of a target that gloves can hit. */
const place = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.5rem;
  min-height: var(--target);
  min-width: var(--target);
`;

/** Where a button leads somewhere it is a link: the same to look at and to hit. */
export const ButtonLink = styled.a`
  ${place}
  padding: 0 1rem;
  border: var(--rule) solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--surface);
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  &:hover { border-color: var(--ink); }
`;

const Pressed = styled(AriaButton)<{ $kind?: 'primary' | 'plain' | 'quiet' }>`
  ${place}
  padding: 0 ${({ $kind }) => ($kind === 'quiet' ? '0.6rem' : '1rem')};
  border: var(--rule) solid ${({ $kind }) => ($kind === 'quiet' ? 'transparent' : $kind === 'primary' ? 'var(--accent)' : 'var(--line-strong)')};
  border-radius: var(--radius);
  background: ${({ $kind }) => ($kind === 'primary' ? 'var(--accent)' : $kind === 'quiet' ? 'transparent' : 'var(--surface)')};
  color: ${({ $kind }) => ($kind === 'primary' ? 'var(--on-accent)' : $kind === 'quiet' ? 'var(--accent)' : 'var(--ink)')};
  font: inherit;
  font-weight: 600;
  text-align: center;
  cursor: pointer;
  &[data-hovered] { filter: brightness(1.06); border-color: var(--ink); }
  &[aria-disabled='true'] { opacity: 0.55; cursor: default; filter: none; }
`;

/**
 * A button that gloves can hit. `$kind` main: the one clear action of a view; quiet: beside text. One that is disabled does nothing, but
 * stays a stop of the Tab key and keeps the focus it has, as WAI-ARIA asks of buttons that may become usable again.
 */
export function Button({ isDisabled = false, onPress, onPressStart, ref, ...rest }: ComponentProps<typeof Pressed>) {
  const button = useObjectRef(ref);
  useLayoutEffect(() => {
    const element = button.current;
    if (!isDisabled || !element) return;
    // React Aria writes this attribute for its own disabled state only, which would take the focus.
    element.setAttribute('aria-disabled', 'true');
    // Of a form's button it is the click that submits, by Enter in a box too.
    const stop = (event: Event) => event.preventDefault();
    element.addEventListener('click', stop, { capture: true });
    return () => {
      element.removeAttribute('aria-disabled');
      element.removeEventListener('click', stop, { capture: true });
    };
  });
  return <Pressed {...rest} ref={button} {...(isDisabled ? {} : { onPress, onPressStart })} />;
}

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
