import type { Presence } from '@fettle/core';
import { useMemo } from 'react';
import { useAppSelector } from '../base/store.js';
import { TAB } from '../wire/credentials.js';

/** Who else has the engine open that is open here, and where they are; by name. */
export function useOthers(): readonly Presence[] {
  const here = useAppSelector((state) => state.live.here);
  const engine = useAppSelector((state) => state.undo.job);
  return useMemo(
    () =>
      Object.values(here)
        .filter((one) => one.tab !== TAB && one.engine !== null && one.engine === engine)
        .sort((one, other) => one.name.localeCompare(other.name) || one.tab.localeCompare(other.tab)),
    [here, engine],
  );
}
