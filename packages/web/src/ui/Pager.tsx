import { Button } from './Button.js';
import { Row } from './Panel.js';

interface PagerProps {
  /** Where the page that is shown starts; undefined for the newest. */
  readonly after: string | undefined;
  /** Where the page after it starts; null where there is none. */
  readonly goesOn: string | null;
  readonly onGo: (after: string | undefined) => void;
  /** What its buttons say, where what is listed is no history. */
  readonly more?: string;
  readonly back?: string;
}

/** To the page of older entries of a history, and back to the newest; nothing where one page holds all. */
export function Pager({ after, goesOn, onGo, more = 'Show older ones', back = 'Back to the newest' }: PagerProps) {
  if (after === undefined && goesOn === null) return null;
  return (
    <Row>
      {goesOn !== null && <Button onPress={() => onGo(goesOn)}>{more}</Button>}
      {after !== undefined && <Button onPress={() => onGo(undefined)}>{back}</Button>}
    </Row>
  );
}
