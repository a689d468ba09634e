import { defineConfig } from 'vitest/config';

const conditions = ['@fettle/source'];
const resolve = {
  resolve: { conditions },
  ssr: { resolve: { conditions, externalConditions: conditions } },
};

/** Mock a table that everything else is made from: they load the core for themselves. */
const MOCKED = ['packages/core/src/job/thirdFamily.test.ts'];

export default defineConfig({
  test: {
    // Two at a time on two cores: one fewer than the cores is the default.
    maxWorkers: 2,
    projects: [
      {
        ...resolve,
        test: {
          name: 'core',
          include: ['packages/core/src/**/*.test.ts'],
          exclude: MOCKED,
          // Its modules hold no state that tests share: each is loaded once, not once a file.
          isolate: false,
          testTimeout: 60_000,
        },
      },
      { ...resolve, test: { name: 'core with a table mocked', include: MOCKED, testTimeout: 60_000 } },
      { ...resolve, test: { name: 'cli', include: ['packages/cli/src/**/*.test.ts'], testTimeout: 60_000 } },
      {
        ...resolve,
        test: {
          name: 'web',
          include: ['packages/web/src/**/*.test.{ts,tsx}'],
          setupFiles: ['packages/web/src/base/testing/takeDown.ts'],
          testTimeout: 60_000,
        },
      },
      {
        ...resolve,
        test: {
          name: 'server',
          include: ['packages/server/src/**/*.test.ts'],
          globalSetup: ['packages/server/src/testing/throwAwayPostgres.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
