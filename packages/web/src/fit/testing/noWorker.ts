import { vi } from 'vitest';

/** Stands in for a worker that never answers; what a test imports after this file finds it there. */
class NoWorker extends EventTarget {
  postMessage(): void {}
  terminate(): void {}
}

vi.stubGlobal('Worker', NoWorker);
vi.stubGlobal('fetch', () => new Promise(() => {}));
