import type { DrawerLine } from '@fettle/core';
import { useCallback, useRef, useState } from 'react';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

const LOOK_EVERY_MS = 4000;

export interface Drawer {
  /** The workshop's halves; null until they have been read. */
  readonly lines: readonly DrawerLine[] | null;
  /** What kept a change from working. */
  readonly fault: string | null;
  /** A kind of half as it was last seen, also between two renders; undefined when it is not there. */
  readonly current: (id: string) => DrawerLine | undefined;
  /** Does something to the drawer, one thing after the other, and looks again. @returns true if it worked */
  readonly act: (action: () => Promise<unknown>) => Promise<boolean>;
}

/**
 * The workshop's drawer, looked at again every few seconds. What was read last stays while the server does not answer; the saving mark
 * tells.
 *
 * @param job an engine: what was fitted into it is told as well
 * @param isWanted false asks nothing
 */
export function useDrawer({ job, isWanted = true }: { job?: string; isWanted?: boolean } = {}): Drawer {
  const asked = job === undefined ? {} : { job };
  const { data } = api.useListDrawerQuery(asked, { ...useLookedAtEvery(LOOK_EVERY_MS), skip: !isWanted });
  const [fault, setFault] = useState<string | null>(null);
  const latest = useRef<readonly DrawerLine[]>([]);
  if (data) latest.current = data;
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const act = useCallback((action: () => Promise<unknown>) => {
    const run = async () => {
      setFault(null);
      let worked = true;
      try {
        await action();
      } catch (error) {
        setFault(refusalInWords(error));
        worked = false;
      }
      // What comes next starts from what this has left.
      const lines = await tell('listDrawer', {}).catch(() => null);
      if (lines) latest.current = lines;
      return worked;
    };
    // What is typed quickly, box after box, goes out one by one, each on what the one before has left.
    const done = queue.current.then(run);
    queue.current = done;
    return done;
  }, []);
  const current = useCallback((id: string) => latest.current.find((line) => line.id === id), []);
  return { lines: data ?? null, fault, act, current };
}
