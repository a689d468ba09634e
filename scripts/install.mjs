// Installs the locked packages when they are missing or not those of the lock file. No package runs a script at that (.npmrc): the one that has
// one, esbuild, only looks whether its program is there, which comes with the package of the platform. What should need one is run here by name.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';

const stamp = join(root, 'node_modules/.fettle-installed');

/** Runs `npm ci` unless node_modules already is what package-lock.json says. */
export function installIfNeeded() {
  const locked = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === locked) return;
  // An install made by hand counts when npm finds nothing missing in it.
  const byHand =
    existsSync(join(root, 'node_modules')) &&
    spawnSync('npm', ['ls', '--all', '--silent'], { cwd: root, stdio: 'ignore' }).status === 0;
  if (!byHand) {
    console.error('Installing the locked packages (about two minutes the first time) …');
    const run = spawnSync('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    if (run.status !== 0) throw new Error('npm ci failed; see the lines above. It needs the npm registry.');
  }
  writeFileSync(stamp, locked);
}
