import type { PieceLine } from '@fettle/core';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { api } from '../wire/api.js';

const LOOK_EVERY_MS = 4000;

/**
 * The workshop's washers, flanged halves and shims; null until they have been read.
 *
 * @param job an engine: what was fitted into it is told as well
 */
export function usePieceLines(job?: string): readonly PieceLine[] | null {
  const { data } = api.useListPiecesQuery(job === undefined ? {} : { job }, useLookedAtEvery(LOOK_EVERY_MS));
  return data ?? null;
}
