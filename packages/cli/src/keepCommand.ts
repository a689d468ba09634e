import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { CommandStreams } from './planCommand.js';

/** The script that knows the cluster: it lies beside the one that starts it. */
const SCRIPT = join(import.meta.dirname, '../../../scripts/backup.mjs');

/**
 * Backs everything up into a file, or puts a backup in the place of what is there.
 *
 * @returns the exit status: 0 done, 2 refused, with the reason
 */
export function keepCommand(
  what: 'backup' | 'restore',
  file: string,
  { complain }: Pick<CommandStreams, 'complain'>,
): number {
  if (!existsSync(SCRIPT)) {
    complain(`fettle: ${what} works in the project’s own folder only: there is no ${SCRIPT}\n`);
    return 2;
  }
  return spawnSync(process.execPath, [SCRIPT, what, file], { stdio: 'inherit' }).status ?? 1;
}
