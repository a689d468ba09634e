import { chmodSync, mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

const port = process.env.FETTLE_E2E_PORT ?? '4791';
// The configuration is read again in every worker; the folder is made once.
process.env.FETTLE_E2E_DATA ??= mkdtempSync('/tmp/fettle-e2e-');
// PostgreSQL runs as another user, who must be able to pass.
chmodSync(process.env.FETTLE_E2E_DATA, 0o755);

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  fullyParallel: false,
  workers: 1,
  retries: 0,
  timeout: 150_000,
  expect: { timeout: 20_000 },
  // A folder of its own: it is emptied at the start, and reports of other suites lie beside it.
  outputDir: '../test-results/pages',
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumOptions(),
    trace: 'off',
    // A page out of the browser's own store would not see what tests put in the way of requests; its own spec lets it in.
    serviceWorkers: 'block',
  },
  webServer: {
    command: 'node ../scripts/start.mjs',
    url: `http://127.0.0.1:${port}/api/health`,
    env: { FETTLE_PORT: port, FETTLE_DATA: join(process.env.FETTLE_E2E_DATA, 'main') },
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    timeout: 120_000,
    stdout: 'ignore',
    stderr: 'pipe',
  },
});
