import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startCluster } from '../../../../scripts/postgres.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
  }
}

/** A real PostgreSQL for the server's tests, thrown away afterwards. */
export default async function throwAwayPostgres(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join('/tmp', 'fettle-test-'));
  const cluster = await startCluster(folder, { durable: false });
  project.provide('databaseUrl', cluster.url);
  return async () => {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
