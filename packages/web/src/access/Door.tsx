import type { FormEvent, ReactNode } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle } from '../ui/Panel.js';

const Middle = styled(Panel)`
  width: min(30rem, 100%);
  margin: 6vh auto 0;
  padding: 1.25rem 1.5rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 0.75rem;
  h1 { font-size: 1.6rem; }
  form { display: flex; flex-direction: column; gap: 0.6rem; }
  [role='alert'] { color: var(--tight); font-weight: 600; }
`;

interface DoorProps {
  readonly title: string;
  readonly children: ReactNode;
  /** What the button that is pressed at the end says. */
  /** What its button says; null while there is nothing to send yet. */
  readonly act: string | null;
  readonly isReady: boolean;
  readonly isBusy: boolean;
  /** Why it did not work. */
  readonly fault: string | null;
  readonly onAct: () => void;
  /** Below the form. */
  readonly beside?: ReactNode;
}

/** One thing to fill in, in the middle of the page, before anything else. */
export function Door({ title, children, act, isReady, isBusy, fault, onAct, beside }: DoorProps) {
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (isReady && !isBusy) onAct();
  };
  return (
    <Middle aria-label={title}>
      <PanelTitle as="h1">{title}</PanelTitle>
      <form onSubmit={send}>
        {children}
        {fault !== null && <p role="alert">{fault}</p>}
        {act !== null && (
          <Button type="submit" $kind="primary" isDisabled={!isReady || isBusy}>
            {act}
          </Button>
        )}
      </form>
      {beside}
    </Middle>
  );
}
