/** A look every so many milliseconds: it waits for the one before it, and stops while the tab is hidden. */
export function lookedAtEvery(pollingInterval: number) {
  return { pollingInterval, skipPollingIfUnfocused: true, refetchOnMountOrArgChange: true } as const;
}
