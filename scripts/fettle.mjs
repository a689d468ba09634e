// npm run fettle: the command line, from the build where it is up to date (it starts in half the time), else from the sources.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { constants } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './root.mjs';

/** When the newest file of a folder was changed, ms; Infinity where there is no such folder. */
function newest(folder) {
  try {
    return Math.max(
      ...readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs),
    );
  } catch {
    return Number.POSITIVE_INFINITY;
  }
}

/** What TypeScript notes of a build that left something out. */
const UNFINISHED = ['errors', 'affectedFilesPendingEmit', 'semanticDiagnosticsPerFile', 'emitDiagnosticsPerFile'];

/** True if a package was built, without an error, after its sources were last changed. */
function isBuilt(name) {
  const folder = join(root, 'packages', name);
  const notes = join(folder, 'tsconfig.tsbuildinfo');
  if (!existsSync(join(folder, 'dist')) || !existsSync(notes)) return false;
  if (newest(join(folder, 'src')) >= statSync(notes).mtimeMs) return false;
  const noted = JSON.parse(readFileSync(notes, 'utf8'));
  return UNFINISHED.every((key) => noted[key] === undefined);
}

if (isBuilt('core') && isBuilt('cli')) {
  await import(pathToFileURL(join(root, 'packages/cli/dist/main.js')).href);
} else {
  const { status, signal, error } = spawnSync(
    process.execPath,
    [
      '--conditions=@fettle/source',
      '--import',
      'tsx',
      join(root, 'packages/cli/src/main.ts'),
      ...process.argv.slice(2),
    ],
    { stdio: 'inherit' },
  );
  if (error) throw error;
  process.exitCode = signal === null ? (status ?? 1) : 128 + constants.signals[signal];
}
