import { store } from './store.js';

/** A page that asks the server nothing is taken to be there after so long, ms. */
const LATEST_MS = 3000;
/** How long a page that was answered gets to show what came before anything else is begun, ms: at least, and at most where it is slow. */
const SHOWING_MS = 300;
const SHOWN_MS = 3000;

/** Does something when the browser has nothing to draw or to run, or after so long at most. */
function whenIdle(then: () => void, atMostMs: number): void {
  // Not every browser tells when it is idle.
  if ('requestIdleCallback' in globalThis) requestIdleCallback(then, { timeout: atMostMs });
  else setTimeout(then, 0);
}

/** Does something once, after the server's first answer is on the screen. */
export function whenAnswered(then: () => void): void {
  const start = (afterMs: number) => {
    unsubscribe();
    clearTimeout(latest);
    setTimeout(() => whenIdle(then, SHOWN_MS), afterMs);
  };
  const unsubscribe = store.subscribe(() => {
    const { queries } = store.getState().api;
    if (Object.values(queries).some((query) => query?.status === 'fulfilled')) start(SHOWING_MS);
  });
  const latest = setTimeout(() => start(0), LATEST_MS);
}
