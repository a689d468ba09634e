import { chmodSync, mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

/** Ports, with commas between: a worker for each, with a server and data of its own. Two cores are busy with one. */
const ports = (process.env.FETTLE_E2E_PORT ?? '4791').split(',');
const originAt = (at: number) => `http://127.0.0.1:${ports[at]}`;
// The configuration is read again in every worker; the folder is made once.
process.env.FETTLE_E2E_DATA ??= mkdtempSync('/tmp/fettle-e2e-');
// PostgreSQL runs as another user, who must be able to pass.
chmodSync(process.env.FETTLE_E2E_DATA, 0o755);

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  fullyParallel: false,
  workers: ports.length,
  retries: 0,
  timeout: 150_000,
  expect: { timeout: 20_000 },
  // A folder of its own: it is emptied at the start, and reports of other suites lie beside it.
  outputDir: '../test-results/pages',
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    baseURL: originAt(Number(process.env.TEST_PARALLEL_INDEX ?? 0)),
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumOptions(),
    trace: 'off',
    // A page out of the browser's own store would not see what tests put in the way of requests; its own spec lets it in.
    serviceWorkers: 'block',
  },
  webServer: ports.map((port, at) => ({
    command: 'node ../scripts/start.mjs',
    url: `${originAt(at)}/api/health`,
    env: { FETTLE_PORT: port, FETTLE_DATA: join(process.env.FETTLE_E2E_DATA!, `main-${at}`) },
    gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 15_000 },
    timeout: 120_000,
    stdout: 'ignore' as const,
    stderr: 'pipe' as const,
  })),
});
