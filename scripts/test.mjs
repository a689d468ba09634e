// npm test: everything, from a clean clone, ending with one line "N passed, N failed".
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { buildIfNeeded } from './build.mjs';
import { installIfNeeded } from './install.mjs';
import { freePort, installPackages, postgresBinaries } from './postgres.mjs';
import { root } from './root.mjs';

let passed = 0;
let failed = 0;
/** Names of what failed, with the first lines of why: printed once more at the end, where a long log is read first. */
const failures = [];

function report(name, isGood) {
  if (isGood) passed += 1;
  else {
    failed += 1;
    failures.push(name);
  }
  console.log(`${isGood ? 'ok  ' : 'FAIL'} ${name}`);
}

function run(args, env = {}, cwd = root) {
  return spawnSync(process.execPath, args, { cwd, stdio: 'inherit', env: { ...process.env, ...env } }).status === 0;
}

/** Runs a check beside others; what it prints comes in one piece, when it has ended. */
function check(name, args) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    const printed = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => printed.push(chunk));
    child.on('error', (error) => printed.push(Buffer.from(`${error.message}\n`)));
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(printed));
      report(name, status === 0);
      resolve();
    });
  });
}

const beginning = (message) => (message ?? '').split('\n').slice(0, 12).join('\n');

/** Failed tests of a suite in the report of the end-to-end tests, and of the suites in it. */
function failedSpecs({ specs = [], suites = [] }) {
  const failedHere = specs
    .filter((spec) => spec.tests.some((test) => test.status !== 'expected'))
    .map((spec) => {
      const errors = spec.tests.flatMap((test) => test.results.flatMap((result) => result.error ?? []));
      return `${spec.file} › ${spec.title}\n${beginning(errors[0]?.message)}`;
    });
  return [...failedHere, ...suites.flatMap(failedSpecs)];
}

const results = join(root, 'test-results');
try {
  installIfNeeded();
  postgresBinaries();
  if (!existsSync('/usr/bin/chromium')) installPackages('Chromium', ['chromium']);
  if (!existsSync('/usr/bin/openssl')) installPackages('OpenSSL', ['openssl']);
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results);

  const tsc = 'node_modules/typescript-native/bin/tsc';
  // The types of the tests rest on what the first writes.
  await check('types', [tsc, '-b']);
  await Promise.all([
    check('types of the tests', [tsc, '-p', 'tsconfig.tests.json']),
    check('types of the tests of the page', [tsc, '-p', 'packages/web/tsconfig.tests.json']),
    check('lint', ['node_modules/@biomejs/biome/bin/biome', 'ci', '--error-on-warnings']),
    check('dependency rules', ['scripts/deps.mjs']),
    check('words of the glossary', ['scripts/words.mjs', '--check']),
    check('unused code', ['node_modules/knip/bin/knip.js']),
    check('formats are current', ['--conditions=@fettle/source', '--import', 'tsx', 'scripts/formats.ts', '--check']),
  ]);

  try {
    buildIfNeeded();
    report('build', true);
  } catch (error) {
    console.error(error.message);
    report('build', false);
  }

  // One after the other: side by side, on a loaded machine, waits for pages run out.
  const unit = join(results, 'unit.json');
  const e2e = join(results, 'e2e.json');
  run(['node_modules/vitest/vitest.mjs', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]);
  run(
    ['../node_modules/@playwright/test/cli.js', 'test'],
    { FETTLE_E2E_PORT: String(await freePort()) },
    join(root, 'e2e'),
  );

  if (existsSync(unit)) {
    const summary = JSON.parse(readFileSync(unit, 'utf8'));
    passed += summary.numPassedTests;
    failed += summary.numTotalTests - summary.numPassedTests;
    for (const file of summary.testResults)
      for (const test of file.assertionResults)
        if (test.status !== 'passed')
          failures.push(`${relative(root, file.name)} › ${test.fullName}\n${beginning(test.failureMessages?.[0])}`);
    const broken = summary.testResults.filter((file) => file.status !== 'passed' && file.assertionResults.length === 0);
    for (const file of broken) report(`test file ${file.name}`, false);
    if (summary.numTotalTests === 0) report('unit and server tests ran', false);
  } else report('unit and server tests ran', false);

  if (existsSync(e2e)) {
    const { stats, suites } = JSON.parse(readFileSync(e2e, 'utf8'));
    passed += stats.expected;
    failed += stats.unexpected + stats.flaky + stats.skipped;
    failures.push(...suites.flatMap(failedSpecs));
    if (stats.expected + stats.unexpected === 0) report('end-to-end tests ran', false);
  } else report('end-to-end tests ran', false);
} catch (error) {
  console.error(error.message);
  failed += 1;
  failures.push(error.message);
}
for (const failure of failures) console.log(`FAILED ${failure}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
