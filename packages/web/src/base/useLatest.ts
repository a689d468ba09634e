import { type RefObject, useRef } from 'react';

/** A value as it is now, for what was made before: the reference stays the same when the value changes. */
export function useLatest<Value>(value: Value): RefObject<Value> {
  const latest = useRef(value);
  latest.current = value;
  return latest;
}
