// Runs a program against a fresh copy of the application with its demo data.
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { root } from './root.mjs';

/**
 * Starts the application, runs a TypeScript program of the e2e folder with its address, and stops it again.
 *
 * @param {string} program
 * @returns {Promise<number>} the program's exit status
 */
export async function runOnDemo(program) {
  const data = mkdtempSync('/tmp/fettle-demo-');
  chmodSync(data, 0o755);
  const port = await freePort();
  const env = { ...process.env, FETTLE_PORT: String(port), FETTLE_DATA: join(data, 'app') };
  const app = spawn(process.execPath, ['scripts/start.mjs'], { cwd: root, env, stdio: ['ignore', 'pipe', 'inherit'] });
  await new Promise((resolve, reject) => {
    app.stdout.on('data', (chunk) => String(chunk).includes('ready') && resolve());
    app.on('exit', () => reject(new Error('Fettle did not start')));
  });
  const args = ['--conditions=@fettle/source', '--import', 'tsx', program, `http://127.0.0.1:${port}`];
  const { status } = spawnSync(process.execPath, args, { cwd: join(root, 'e2e'), stdio: 'inherit' });
  app.removeAllListeners('exit');
  app.kill('SIGTERM');
  await new Promise((resolve) => app.on('exit', resolve));
  rmSync(data, { recursive: true, force: true });
  return status ?? 1;
}
