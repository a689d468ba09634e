/** The box below one in its table: in the same column of the next row that has one there; null at the bottom, and outside of tables. */
export function boxBelow(box: HTMLElement): HTMLElement | null {
  const cell = box.closest('td, th');
  let row = box.closest('tr')?.nextElementSibling ?? null;
  if (!cell) return null;
  const column = [...(cell.parentElement?.children ?? [])].indexOf(cell);
  for (; row; row = row.nextElementSibling) {
    const input = row.children[column]?.querySelector<HTMLElement>(
      'input:not([type="checkbox"]):not([type="radio"]):not(:disabled), [role="textbox"][tabindex="0"]',
    );
    if (input) return input;
  }
  return null;
}

/** Enter in a table of boxes: on to the box below, with its text selected; that the box is left saves it. @returns false at the bottom */
export function enterDown(box: HTMLElement): boolean {
  const below = boxBelow(box);
  // What is text until it is entered selects its own text then.
  below?.focus();
  if (below instanceof HTMLInputElement) below.select();
  return below !== null;
}
