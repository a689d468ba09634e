import { useSettled } from './useSettled.js';

/** The frame that shows a change goes first, ms. */
const FRAME_MS = 30;

/** A value as it was a frame ago, for what may follow the frame that shows a change; another engine, or the first, is there at once. */
export function useAfterFrame<Value extends { readonly id: string } | null>(value: Value): Value {
  const settled = useSettled(value, FRAME_MS);
  return settled?.id === value?.id ? settled : value;
}
