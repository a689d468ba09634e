import { type RefObject, useEffect, useRef, useState } from 'react';

/** Rows shown at first: more take too long to draw. */
const AT_FIRST = 100;
/** Asked for more, so many times as many. */
const MORE = 4;

export interface Shown<Item> {
  readonly shown: readonly Item[];
  /** How many are shown of those that nobody wants above others. */
  readonly most: number;
  readonly showMore: () => void;
}

/**
 * The first rows of a long table, and more when they are asked for: then the first of the new ones is in hand.
 *
 * @param body the rows, each for an item
 * @param reveal takes a row in hand by its place, where rows are drawn only while they are in sight; left out, all are
 * @param isWanted whether one is shown wherever it stands; left out, none is
 */
export function useShown<Item>(
  items: readonly Item[],
  body: RefObject<HTMLTableSectionElement | null>,
  isWanted?: (item: Item) => boolean,
  reveal?: (at: number) => void,
): Shown<Item> {
  const [most, setMost] = useState(AT_FIRST);
  const from = useRef<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once more are shown
  useEffect(() => {
    const at = from.current;
    from.current = null;
    if (at !== null && reveal) {
      reveal(at);
      return;
    }
    const row = at === null ? null : body.current?.rows[at];
    if (!row) return;
    // A row that keys do not go to can be given the focus all the same.
    if (row.tabIndex < 0) row.tabIndex = -1;
    row.focus();
  }, [most]);
  return {
    shown: [...items.slice(0, most), ...(isWanted ? items.slice(most).filter(isWanted) : [])],
    most,
    showMore: () => {
      from.current = most;
      setMost(MORE * most);
    },
  };
}
