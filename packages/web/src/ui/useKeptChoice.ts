import { type KeptPlace, useKeptText } from './useKeptText.js';

/**
 * A choice that belongs to what is being typed, kept on this device with it: a reload does not make another figure of what stands there, as
 * one read with another zero, or in another unit.
 *
 * @param place which choice it is
 * @param stored what holds while nobody has chosen
 * @param all what there is to choose from
 * @returns what is chosen, what chooses, and what goes on with a choice that is saved
 */
export function useKeptChoice<Value extends string>(
  place: KeptPlace,
  stored: Value,
  all: readonly Value[],
): [Value, (value: Value) => void, (value: Value) => void] {
  const { text, setText, settled } = useKeptText(place, stored);
  return [all.find((value) => value === text) ?? stored, setText, settled];
}
