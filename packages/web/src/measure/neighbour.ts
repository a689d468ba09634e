import type { Slot } from '@fettle/core';
import type { Step } from './useReadingBox.js';
import type { Place } from './useSaveReading.js';

/** Neighbour of a cell in the grid of slots and parts; null at the edge. */
export function neighbour(
  place: Place,
  step: Step,
  slots: readonly Slot[],
  count: number,
  order: 'along' | 'down',
): Place | null {
  const rows = slots.length;
  const row = slots.indexOf(place.slot);
  const column = place.station - 1;
  const at = (r: number, c: number): Place | null =>
    r < 0 || r >= rows || c < 0 || c >= count ? null : { ...place, slot: slots[r]!, station: c + 1 };
  switch (step) {
    case 'up':
      return at(row - 1, column);
    case 'down':
      return at(row + 1, column);
    case 'left':
      return at(row, column - 1);
    case 'right':
      return at(row, column + 1);
    case 'next':
    case 'previous': {
      const index = order === 'along' ? row * count + column : column * rows + row;
      const next = index + (step === 'next' ? 1 : -1);
      if (next < 0 || next >= rows * count) return null;
      return order === 'along' ? at(Math.floor(next / count), next % count) : at(next % rows, Math.floor(next / rows));
    }
  }
}

/**
 * The next place in the order of measuring, from one on, whose box is empty; round past the last one to the first. Null where none is.
 *
 * @param isEmpty whether nothing is kept, or typed, at a place
 */
export function nextEmpty(
  place: Place,
  slots: readonly Slot[],
  count: number,
  order: 'along' | 'down',
  isEmpty: (place: Place) => boolean,
): Place | null {
  const stations = Array.from({ length: count }, (_, at) => at + 1);
  const places =
    order === 'along'
      ? slots.flatMap((slot) => stations.map((station): Place => ({ ...place, slot, station })))
      : stations.flatMap((station) => slots.map((slot): Place => ({ ...place, slot, station })));
  const from = places.findIndex(({ slot, station }) => slot === place.slot && station === place.station);
  return [...places.slice(from + 1), ...places.slice(0, from)].find(isEmpty) ?? null;
}
