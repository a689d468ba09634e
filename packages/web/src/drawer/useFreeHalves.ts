import { type FreeHalves, freeHalves } from '@fettle/core';
import { useMemo } from 'react';
import type { OpenJob } from '../job/useJob.js';
import { useDrawer } from './useDrawer.js';

/** How many of the workshop's halves an engine may take, by line; null while that is not known, or where it takes none of them. */
export function useFreeHalves({ id, document }: Pick<OpenJob, 'id' | 'document'>): FreeHalves | null {
  const isSharing = Object.values(document.shells).some(({ line }) => line !== null);
  const { lines } = useDrawer({ job: id, isWanted: isSharing });
  return useMemo(() => lines && new Map(lines.map((line) => [line.id, freeHalves(line, id)])), [lines, id]);
}
