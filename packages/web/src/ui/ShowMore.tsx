import { Button } from './Button.js';
import { Quiet, Row } from './Panel.js';

interface ShowMoreProps {
  readonly shown: number;
  readonly all: number;
  /** What they are: halves, pairs. */
  readonly what: string;
  /** Which of them are shown. */
  readonly which?: string;
  readonly onMore: () => void;
}

/** How many of a long list are shown, and the way to more; nothing where all are. */
export function ShowMore({ shown, all, what, which = 'the first', onMore }: ShowMoreProps) {
  if (shown >= all) return null;
  return (
    <Row style={{ justifyContent: 'space-between', margin: '0.4rem 0' }}>
      <Quiet>
        {shown.toLocaleString('en')} of {all.toLocaleString('en')} {what}, {which}.
      </Quiet>
      <Button onPress={onMore}>Show more {what}</Button>
    </Row>
  );
}
