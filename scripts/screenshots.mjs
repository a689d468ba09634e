// Takes docs/screenshots anew from the demo data, on a fresh copy of the application.
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { root } from './root.mjs';

const data = mkdtempSync('/tmp/fettle-shots-');
chmodSync(data, 0o755);
const port = await freePort();
const env = { ...process.env, FETTLE_PORT: String(port), FETTLE_DATA: join(data, 'app') };
const app = spawn(process.execPath, ['scripts/start.mjs'], { cwd: root, env, stdio: ['ignore', 'pipe', 'inherit'] });
await new Promise((resolve, reject) => {
  app.stdout.on('data', (chunk) => String(chunk).includes('ready') && resolve());
  app.on('exit', () => reject(new Error('Fettle did not start')));
});
const args = ['--conditions=@fettle/source', '--import', 'tsx', 'takeScreenshots.ts', `http://127.0.0.1:${port}`];
const { status } = spawnSync(process.execPath, args, { cwd: join(root, 'e2e'), stdio: 'inherit' });
app.removeAllListeners('exit');
app.kill('SIGTERM');
await new Promise((resolve) => app.on('exit', resolve));
rmSync(data, { recursive: true, force: true });
process.exit(status ?? 1);
