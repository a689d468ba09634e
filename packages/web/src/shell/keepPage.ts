import { store } from './store.js';
import { versionFound } from './versionSlice.js';

/** How often it is looked whether there is a new version of the page, ms. */
const LOOK_EVERY_MS = 15 * 60_000;

/** A new version that has not taken charge after so long does so once the page is gone, ms. */
const TAKES_CHARGE_MS = 5000;

let waiting: ServiceWorker | null = null;
let isAsked = false;

/** Goes over to the new version: the page is loaded anew as soon as it is in charge. */
export function takeNewVersion(): void {
  isAsked = true;
  if (!waiting) {
    location.reload();
    return;
  }
  waiting.postMessage({ type: 'SKIP_WAITING' });
  // The one in charge may still have something to answer.
  setTimeout(() => location.reload(), TAKES_CHARGE_MS);
}

function watch(registration: ServiceWorkerRegistration): void {
  const found = () => {
    // The first one of all is no news.
    if (!registration.waiting || !navigator.serviceWorker.controller) return;
    waiting = registration.waiting;
    store.dispatch(versionFound('waits'));
  };
  // One may be on its way already.
  const follow = () => {
    const { installing } = registration;
    installing?.addEventListener('statechange', () => installing.state === 'installed' && found());
  };
  registration.addEventListener('updatefound', follow);
  follow();
  found();
}

/**
 * Keeps the page in the browser, so that it opens without the server. A new version waits until it is asked for: it never takes the place of
 * the one that somebody types in.
 */
export async function keepPage(): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  const hadOne = navigator.serviceWorker.controller !== null;
  let isFirst = !hadOne;
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (isAsked) location.reload();
    else if (!isFirst) store.dispatch(versionFound('taken'));
    isFirst = false;
  });
  const registration = await navigator.serviceWorker.register('/sw.js');
  watch(registration);
  setInterval(() => void registration.update().catch(() => undefined), LOOK_EVERY_MS);
}
