import { createContext, type ReactElement, useContext, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { fieldBox } from './Field.js';
import { notedText } from './typingNotes.js';
import { type KeptPlace, keptKey } from './useKeptText.js';

/** True within a table of so many rows that its boxes are drawn as text until they are entered. */
export const LongTable = createContext(false);

const Text = styled.span`
  ${fieldBox}
  display: flex;
  align-items: center;
  font-family: var(--figures);
  font-size: var(--size-figure);
  font-variant-numeric: tabular-nums;
  cursor: text;
  &[data-empty] { color: var(--ink-soft); }
`;

interface TextUntilEnteredProps {
  /** Which box it is: one in which something was typed and not saved is a box from the start. */
  readonly kept: KeptPlace;
  /** What the box is called. */
  readonly label: string;
  /** What stands in it. */
  readonly text: string;
  /** Shown where nothing stands in it. */
  readonly empty?: string;
  /** The box. */
  readonly children: ReactElement;
}

/** A box of a table. In a long one only its text is drawn, and looks the same; with the focus it becomes the box. */
export function TextUntilEntered({ kept, label, text, empty = '', children }: TextUntilEnteredProps) {
  const isLong = useContext(LongTable);
  const [isEntered, setEntered] = useState(false);
  const isTyped = isLong && notedText(keptKey(kept)) !== null;
  const cell = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    if (isEntered) cell.current?.querySelector('input')?.focus();
  }, [isEntered]);
  if (isEntered) return <div ref={cell}>{children}</div>;
  if (!isLong || isTyped) return children;
  return (
    <Text
      role="textbox"
      tabIndex={0}
      aria-label={label}
      onFocus={() => setEntered(true)}
      {...(text === '' ? { 'data-empty': true } : {})}
    >
      {text === '' ? empty : text}
    </Text>
  );
}
