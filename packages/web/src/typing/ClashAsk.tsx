import { momentText } from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { Button } from '../ui/Button.js';
import type { KeptText } from '../ui/useKeptText.js';

const Ask = styled.span`
  display: block;
  max-width: 16rem;
  font-size: var(--size-small);
  font-weight: 600;
  line-height: 1.25;
  color: var(--tight);
`;

interface ClashAskProps {
  /** Id of the engine that the box belongs to, where it belongs to one: who changed it last is known of that. */
  readonly of: string;
  readonly mine: string;
  readonly theirs: string;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
}

/** Asks about a box that somebody else has saved while it was being typed in: both values, and who and when where that is known. */
export function ClashAsk({ of, mine, theirs, onMine, onTheirs }: ClashAskProps) {
  const job = useAppSelector((state) => state.saving.jobs[of]);
  const who = job ? ` by ${job.updatedBy}, ${momentText(job.updatedAt)}` : ' elsewhere';
  const told = (value: string) => (value.trim() === '' ? 'empty' : value);
  return (
    <Ask role="alert">
      Not saved. Changed to {told(theirs)}
      {who}. <Button onPress={onMine}>Keep {told(mine)}</Button> <Button onPress={onTheirs}>Keep {told(theirs)}</Button>
    </Ask>
  );
}

/**
 * The question about a box that was saved elsewhere meanwhile; null where none was.
 *
 * @param of id of the engine that the box belongs to
 * @param box its text as it is kept
 * @param commit saves what is typed
 */
export function clashAsk(
  of: string,
  { text, clash, keepMine, settled }: Pick<KeptText, 'text' | 'clash' | 'keepMine' | 'settled'>,
  commit: () => void,
): ReactNode {
  if (clash === null) return null;
  return (
    <ClashAsk
      of={of}
      mine={text}
      theirs={clash}
      onMine={() => {
        keepMine();
        commit();
      }}
      onTheirs={() => settled(clash)}
    />
  );
}

interface SlipAskProps {
  /** What stands in the box. */
  readonly said: string;
  /** What it may have been meant as. */
  readonly likely: readonly string[];
  readonly onLikely: (text: string) => void;
  readonly onSure: () => void;
}

/** Asks about a figure that can hardly be right, before it is saved: a slip, or so it is. */
export function SlipAsk({ said, likely, onLikely, onSure }: SlipAskProps) {
  return (
    <Ask role="alert">
      Not saved: {said} can hardly be right here.{' '}
      {likely.map((one) => (
        <Button key={one} onPress={() => onLikely(one)}>
          It is {one}
        </Button>
      ))}{' '}
      <Button onPress={onSure}>{said} is right</Button>
    </Ask>
  );
}
