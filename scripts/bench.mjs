// npm run bench: prints ratios against a named reference, measured in the same run. A name runs one part: search, shims, budgets, lists, visit, effort, entry, sort, writes, memory, scale.
import { spawnSync } from 'node:child_process';
import { buildIfNeeded } from './build.mjs';
import { installIfNeeded } from './install.mjs';
import { runOnDemo } from './onDemo.mjs';
import { root } from './root.mjs';

installIfNeeded();
const only = process.argv[2];
const wants = (part) => only === undefined || only === part;

function run(program) {
  const args = ['--conditions=@fettle/source', '--import', 'tsx', program];
  return spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
}

let status = 0;
if (wants('visit')) status ||= await runOnDemo('firstVisit.ts');
if (wants('effort')) status ||= await runOnDemo('effortBench.ts');
if (wants('entry')) status ||= await runOnDemo('entryBench.ts');
if (wants('sort')) status ||= await runOnDemo('sortBench.ts');
if (wants('lists')) status ||= run('packages/server/src/testing/listBench.ts');
if (wants('scale')) status ||= run('packages/server/src/testing/scaleBench.ts');
if (wants('writes')) {
  buildIfNeeded();
  status ||= run('packages/server/src/testing/writeBench.ts');
}
if (wants('memory')) {
  buildIfNeeded();
  status ||= run('packages/server/src/testing/memoryBench.ts');
}
if (wants('budgets')) status ||= run('packages/core/src/job/testing/budgetBench.ts');
if (wants('shims')) status ||= run('packages/core/src/fit/testing/shimBench.ts');
if (wants('search')) status ||= run('packages/core/src/fit/testing/fitBench.ts');
process.exit(status);
