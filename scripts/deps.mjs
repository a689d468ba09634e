// Runs dependency-cruiser, looks which packages have scripts at install, and fails also when it saw suspiciously few modules: a broken set-up looks green otherwise.
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';

const run = spawnSync(
  process.execPath,
  ['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', '--output-type', 'json', 'packages', 'e2e'],
  { cwd: root, encoding: 'utf8', maxBuffer: 256 * 1024 * 1024 },
);
let summary;
let sources;
try {
  const result = JSON.parse(run.stdout);
  summary = result.summary;
  sources = result.modules.filter(({ source }) => /^packages\/\w+\/src\//u.test(source)).length;
} catch {
  console.error(`dependency-cruiser did not answer: ${run.stderr || run.stdout.slice(0, 2000)}`);
  process.exit(1);
}
for (const { rule, from, to } of summary.violations) console.error(`${rule.severity} ${rule.name}: ${from} → ${to}`);
/** Packages whose install script was looked at and is not needed; another one is looked at before it is let in. */
const KNOWN_SCRIPTS = new Set(['node_modules/esbuild']);
const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
const scripted = Object.keys(packages).filter((at) => packages[at].hasInstallScript && !KNOWN_SCRIPTS.has(at));
if (scripted.length > 0 || !readFileSync(join(root, '.npmrc'), 'utf8').includes('ignore-scripts=true')) {
  console.error(`packages with scripts at install: ${scripted.join(', ') || 'any: .npmrc lets them run'}`);
  process.exit(1);
}
if (sources < 30) {
  console.error(`dependency-cruiser saw only ${sources} source files: it did not read the packages`);
  process.exit(1);
}
console.log(`dependency rules: ${sources} source files, ${summary.violations.length} violations`);
process.exit(summary.error > 0 ? 1 : 0);
