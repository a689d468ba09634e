// npm run -s fettle -- known rebuild: works out anew what the workshop knows from its engines.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { opened, Refusal } from './database.mjs';
import { root } from './root.mjs';

try {
  const database = await opened(false);
  try {
    const program = join(root, 'packages/server/src/rebuildCommand.ts');
    const args = ['--conditions=@fettle/source', '--import', 'tsx', program];
    const env = { ...process.env, DATABASE_URL: database.serverUrl() };
    process.exitCode = spawnSync(process.execPath, args, { cwd: root, env, stdio: 'inherit' }).status ?? 1;
  } finally {
    await database.close();
  }
} catch (error) {
  if (!(error instanceof Refusal)) throw error;
  console.error(`fettle: ${error.message}`);
  process.exitCode = 2;
}
