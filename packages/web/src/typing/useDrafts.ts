import { useCallback, useRef, useState } from 'react';
import { noteDone, notedKeys, notedText, noteText } from '../ui/typingNotes.js';

export interface Drafts<Value> {
  /** What is being typed and is not ready yet, by the keys of its rows. */
  readonly drafts: Readonly<Record<string, Value>>;
  /** The same as it is now, for what follows in the same moment. */
  readonly latest: () => Readonly<Record<string, Value>>;
  readonly put: (row: string, value: Value) => void;
  /** Lets a row go that is saved. */
  readonly drop: (row: string) => void;
}

/** What an earlier build kept of a group, all rows in one note, goes to a note for each. */
function splitUp(group: string, start: string): void {
  const whole = notedText(group);
  if (whole === null) return;
  for (const [row, value] of Object.entries(JSON.parse(whole) as object)) noteText(start + row, JSON.stringify(value));
  noteDone(group);
}

/**
 * What is being typed into the rows of a table, each kept on this device over a reload until it is saved; each for itself, so that one row's
 * end does not touch the others.
 *
 * @param key names the table on this device
 */
export function useDrafts<Value>(key: string): Drafts<Value> {
  const group = `fettle.draft.${key}`;
  const start = `${group}/`;
  const [drafts, show] = useState<Readonly<Record<string, Value>>>(() => {
    splitUp(group, start);
    return Object.fromEntries(
      notedKeys(start).map((one) => [one.slice(start.length), JSON.parse(notedText(one)!) as Value]),
    );
  });
  const now = useRef(drafts);
  const put = useCallback(
    (row: string, value: Value) => {
      now.current = { ...now.current, [row]: value };
      show(now.current);
      noteText(start + row, JSON.stringify(value));
    },
    [start],
  );
  const drop = useCallback(
    (row: string) => {
      const { [row]: _, ...others } = now.current;
      now.current = others;
      show(others);
      noteDone(start + row);
    },
    [start],
  );
  const latest = useCallback(() => now.current, []);
  return { drafts, latest, put, drop };
}
