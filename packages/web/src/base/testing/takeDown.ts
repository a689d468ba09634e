import { afterEach } from 'vitest';

/** What a test has drawn is taken down after it: a hook that is left mounted goes on when the page it stood in is gone. */
if ('document' in globalThis) {
  const { cleanup, configure } = await import('@testing-library/react');
  // The second that is usual is short on a machine with other work.
  configure({ asyncUtilTimeout: 20_000 });
  afterEach(cleanup);
}
