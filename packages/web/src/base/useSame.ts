import { changesBetween, type Json } from '@fettle/core';
import { useRef } from 'react';

/**
 * The earlier value for as long as the newer one says the same: one object, however often it is made again.
 *
 * @param value - plain data, as JSON could hold it
 */
export function useSame<Value>(value: Value): Value {
  const kept = useRef(value);
  const isSame =
    kept.current === value || changesBetween(kept.current as unknown as Json, value as unknown as Json).length === 0;
  if (!isSame) kept.current = value;
  return kept.current;
}
