import { useCallback, useRef, useState } from 'react';

/** Keys that follow each other faster than this are one step. */
const ONE_STEP_MS = 900;
const MOST_STEPS = 300;

export interface Past<Value> {
  /** Keeps what stood there before a change. @param isAlone a step of its own, however quickly it follows */
  readonly keep: (before: Value, isAlone?: boolean) => void;
  /** What stood there before the last step; null when there is nothing to go back to. */
  readonly takeBack: () => Value | null;
  readonly isEmpty: boolean;
}

/** The steps that were typed since a view was opened, to be taken back one by one; quick typing is one step. */
export function usePast<Value>(): Past<Value> {
  const steps = useRef<Value[]>([]);
  const last = useRef(0);
  const [count, setCount] = useState(0);
  const keep = useCallback((before: Value, isAlone = false) => {
    const now = performance.now();
    const isNewStep = isAlone || steps.current.length === 0 || now - last.current > ONE_STEP_MS;
    last.current = now;
    if (!isNewStep) return;
    steps.current = [...steps.current.slice(-MOST_STEPS), before];
    setCount(steps.current.length);
  }, []);
  const takeBack = useCallback(() => {
    const before = steps.current.at(-1) ?? null;
    steps.current = steps.current.slice(0, -1);
    last.current = 0;
    setCount(steps.current.length);
    return before;
  }, []);
  return { keep, takeBack, isEmpty: count === 0 };
}
