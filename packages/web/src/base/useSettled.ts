import { useEffect, useState } from 'react';

/**
 * A value once it has stayed the same for a moment: what is typed is not asked for key by key.
 *
 * @param first what stands for it until then; the value itself where it is left out
 */
export function useSettled<Value>(value: Value, afterMs: number, first: Value = value): Value {
  const [settled, settle] = useState(first);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), afterMs);
    return () => clearTimeout(timer);
  }, [value, afterMs]);
  return settled;
}
