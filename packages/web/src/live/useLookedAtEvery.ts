import { useAppSelector } from '../base/store.js';

/** How often it is looked all the same where changes are heard at once, ms: nothing that is told is needed. */
const LIVE_MS = 60_000;

/**
 * A look every so many milliseconds, where the server does not tell by itself what others change: it waits for the one before it, and stops
 * while the tab is hidden.
 */
export function useLookedAtEvery(intervalMs: number) {
  const isLive = useAppSelector((state) => state.live.isLive);
  const pollingInterval = isLive ? Math.max(LIVE_MS, intervalMs) : intervalMs;
  return { pollingInterval, skipPollingIfUnfocused: true, refetchOnMountOrArgChange: true } as const;
}
