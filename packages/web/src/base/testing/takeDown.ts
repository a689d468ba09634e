import { afterEach } from 'vitest';

/** What a test has drawn is taken down after it: a hook that is left mounted goes on when the page it stood in is gone. */
afterEach(async () => {
  if (!('document' in globalThis)) return;
  const { cleanup } = await import('@testing-library/react');
  cleanup();
});
