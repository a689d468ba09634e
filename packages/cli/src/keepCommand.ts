import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { CommandStreams } from './planCommand.js';

/** The scripts that know the cluster: they lie beside the one that starts it. */
const SCRIPTS = join(import.meta.dirname, '../../../scripts');

function runScript(name: string, args: readonly string[], { complain }: Pick<CommandStreams, 'complain'>): number {
  const script = join(SCRIPTS, name);
  if (!existsSync(script)) {
    complain(`fettle: ${script} not found. Run this from the project folder.\n`);
    return 2;
  }
  return spawnSync(process.execPath, [script, ...args], { stdio: 'inherit' }).status ?? 1;
}

/**
 * Backs everything up into a file, or puts a backup in the place of what is there.
 *
 * @returns the exit status: 0 done, 2 refused, with the reason
 */
export function keepCommand(
  what: 'backup' | 'restore',
  file: string,
  streams: Pick<CommandStreams, 'complain'>,
): number {
  return runScript('backup.mjs', [what, file], streams);
}

/**
 * Works out anew what the workshop knows from its engines, and tells how far it is.
 *
 * @returns the exit status: 0 done, 2 refused, with the reason
 */
export function knownCommand(streams: Pick<CommandStreams, 'complain'>): number {
  return runScript('known.mjs', [], streams);
}

/**
 * Makes an account, gives one another password, or lists them all.
 *
 * @returns the exit status: 0 done, 2 refused, with the reason
 */
export function personCommand(words: readonly string[], streams: Pick<CommandStreams, 'complain'>): number {
  return runScript('person.mjs', words, streams);
}
