import { isFocusFree } from '../ui/keepFocus.js';

/** The button that leads to the next thing to do. */
export const NEXT_THING = 'next-thing';

/** Goes to the button that leads to the next thing to do. @returns true if there is one */
export function goToNext(): boolean {
  const next = document.getElementById(NEXT_THING);
  next?.focus();
  return next !== null;
}

/** Where the last "Next" led, once its page was shown: the key of the place in the browser's history. */
let arrivedAt = '';

/** The page that "Next" led to is shown, with its stage or still without it. */
export function arriveAt(key: string): void {
  arrivedAt = key;
}

/**
 * True if a stage may take the focus for who was sent to it. A stage that came with its page may. One whose code was fetched afterwards may
 * only where nobody has gone on to another control meanwhile: a key pressed there would go to the wrong place.
 */
export function mayTakeFocus(key: string): boolean {
  return arrivedAt !== key || isFocusFree();
}
