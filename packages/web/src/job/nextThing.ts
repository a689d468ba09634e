/** The button that leads to the next thing to do. */
export const NEXT_THING = 'next-thing';

/** Goes to the button that leads to the next thing to do. @returns true if there is one */
export function goToNext(): boolean {
  const next = document.getElementById(NEXT_THING);
  next?.focus();
  return next !== null;
}
