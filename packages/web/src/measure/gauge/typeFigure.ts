import { flushSync } from 'react-dom';

/** A box that takes readings. */
const BOX = 'input[data-reading]';

/**
 * Types a figure into the box in hand and presses Enter, as a gauge with a data button does through a keyboard.
 *
 * @returns true if there was such a box
 */
export function typeFigure(text: string): boolean {
  const box = document.activeElement;
  if (!(box instanceof HTMLInputElement) || !box.matches(BOX)) return false;
  // As React wants to be told of it: by the element's own setter, and an event that bubbles.
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(box, text);
  // What was typed has to stand in the box before Enter leaves it.
  flushSync(() => box.dispatchEvent(new Event('input', { bubbles: true })));
  box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
  return true;
}
