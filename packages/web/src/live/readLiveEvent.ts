import { type LiveEvent, liveEventSchema } from '@fettle/core';

/** What was heard, as an event of this version; null for what is none. */
export function readLiveEvent(told: unknown): LiveEvent | null {
  return liveEventSchema.safeParse(told).data ?? null;
}
