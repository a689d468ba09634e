import { useState } from 'react';
import { notedKeys } from './typingNotes.js';
import { type KeptPlace, keptKey } from './useKeptText.js';

/**
 * The boxes in which something was typed that was not saved when the view came, as an earlier visit has left them.
 *
 * @returns tells it of a box
 */
export function useLeftPlaces(): (place: KeptPlace) => boolean {
  const [left] = useState(() => new Set(notedKeys('fettle.typing/')));
  return (place) => left.has(keptKey(place));
}
