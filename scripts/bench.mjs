// npm run bench: prints ratios against a named reference, measured in the same run.
import { spawnSync } from 'node:child_process';
import { installIfNeeded } from './install.mjs';
import { root } from './root.mjs';

installIfNeeded();
const args = ['--conditions=@fettle/source', '--import', 'tsx', 'packages/core/src/fit/testing/fitBench.ts'];
process.exit(spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1);
