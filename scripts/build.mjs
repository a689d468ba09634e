// Builds what is out of date: TypeScript's own incremental build for the packages, Vite for the page.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';

const stampFile = join(root, 'packages/web/dist/.built-from');

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : [path];
  });
}

/** Names, sizes and contents of everything that the builds are made from. */
function sourcesDigest() {
  const hash = createHash('sha256');
  const roots = ['core', 'server', 'web', 'cli'].map((name) => join(root, 'packages', name, 'src'));
  roots.push(join(root, 'docs/guide'));
  const single = [
    'package-lock.json',
    'tsconfig.base.json',
    'packages/web/index.html',
    'packages/web/vite.config.ts',
  ].map((name) => join(root, name));
  for (const file of [...roots.flatMap(filesIn), ...single].sort()) {
    hash.update(`${file.slice(root.length)}:${statSync(file).size}\n`).update(readFileSync(file));
  }
  return hash.digest('hex');
}

function run(name, args, cwd = root) {
  const done = spawnSync(process.execPath, args, { cwd, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });
  if (done.status !== 0) throw new Error(`${name} failed:\n${done.stdout}${done.stderr}`);
}

/** Builds server, command line and page when a source changed since the last build. */
export function buildIfNeeded() {
  const digest = sourcesDigest();
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === digest) return false;
  console.error('Building …');
  run('TypeScript', ['node_modules/typescript-native/bin/tsc', '-b']);
  run('Vite', [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], join(root, 'packages/web'));
  writeFileSync(stampFile, digest);
  return true;
}
