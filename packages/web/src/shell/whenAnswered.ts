import { store } from './store.js';

/** A page that asks the server nothing is taken to be there after so long, ms. */
const LATEST_MS = 3000;
/** How long a page that was answered gets to show what came, ms. */
const SHOWING_MS = 300;

/** Does something once, after the server's first answer is on the screen. */
export function whenAnswered(then: () => void): void {
  const start = (afterMs: number) => {
    unsubscribe();
    clearTimeout(latest);
    setTimeout(then, afterMs);
  };
  const unsubscribe = store.subscribe(() => {
    const { queries } = store.getState().api;
    if (Object.values(queries).some((query) => query?.status === 'fulfilled')) start(SHOWING_MS);
  });
  const latest = setTimeout(() => start(0), LATEST_MS);
}
