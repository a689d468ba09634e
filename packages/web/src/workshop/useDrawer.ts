import type { DrawerLine } from '@fettle/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { fetchDrawer } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';

const LOOK_EVERY_MS = 4000;

export interface Drawer {
  /** The workshop's halves; null until they have been read. */
  readonly lines: readonly DrawerLine[] | null;
  /** What kept a change or the last look from working. */
  readonly fault: string | null;
  /** A kind of half as it was last seen, also between two renders; undefined when it is not there. */
  readonly current: (id: string) => DrawerLine | undefined;
  /** Does something to the drawer, one thing after the other, and looks again. @returns whether it worked */
  readonly act: (action: () => Promise<void>) => Promise<boolean>;
}

/** The workshop's drawer, looked at again every few seconds. @param isWanted false asks nothing */
export function useDrawer(isWanted = true): Drawer {
  const [lines, setLines] = useState<readonly DrawerLine[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const latest = useRef<readonly DrawerLine[]>([]);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const look = useCallback(async () => {
    const found = await fetchDrawer();
    latest.current = found;
    setLines((old) => (JSON.stringify(old) === JSON.stringify(found) ? old : found));
  }, []);
  useEffect(() => {
    if (!isWanted) return;
    // What was read last stays on screen while the server does not answer; the saving mark tells.
    const tryLook = () => void look().catch(() => undefined);
    tryLook();
    const timer = setInterval(tryLook, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [isWanted, look]);
  const act = useCallback(
    (action: () => Promise<void>) => {
      const run = async () => {
        setFault(null);
        try {
          await action();
          await look();
          return true;
        } catch (error) {
          setFault(refusalInWords(error));
          await look().catch(() => undefined);
          return false;
        }
      };
      // What is typed quickly, box after box, goes out one by one, each on what the one before has left.
      const done = queue.current.then(run);
      queue.current = done;
      return done;
    },
    [look],
  );
  const current = useCallback((id: string) => latest.current.find((line) => line.id === id), []);
  return { lines, fault, act, current };
}
