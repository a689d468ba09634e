import { NewerDatabase } from '../database/openDatabase.js';
import { BadArchive, checkedManifest, type Manifest } from './archive.js';
import { loadBackup } from './loadBackup.js';
import { writeBackup } from './writeBackup.js';

/** Exit status for what cannot be done as it was asked. */
const REFUSED = 2;

function rowsOf({ parts }: Manifest, table: string): number {
  return parts.find((part) => part.table === table)?.rows ?? 0;
}

function many(count: number, what: string): string {
  return `${count} ${what}${count === 1 ? '' : 's'}`;
}

async function run([command, file]: readonly string[]): Promise<string> {
  const url = process.env.DATABASE_URL;
  if (!url || !file) throw new Error('DATABASE_URL or the file is missing; use npm run fettle -- backup FILE');
  if (command === 'check') {
    await checkedManifest(file);
    return '';
  }
  const manifest = command === 'write' ? await writeBackup(url, file) : await loadBackup(url, file);
  return `${many(rowsOf(manifest, 'job'), 'engine')} and ${many(rowsOf(manifest, 'photo'), 'picture')}`;
}

/** What PostgreSQL says of rows that are none: those of an archive whose checksums agree, but which Fettle never wrote. */
const BAD_ROWS = /^(?:22|23)/u;

try {
  process.stdout.write(await run(process.argv.slice(2)));
} catch (error) {
  const { code = '', message } = error as Error & { code?: string };
  const isRefusal = error instanceof BadArchive || error instanceof NewerDatabase || BAD_ROWS.test(code);
  if (!isRefusal && !code.startsWith('E')) throw error;
  process.stderr.write(error instanceof NewerDatabase ? `the backup ${message}` : message);
  process.exitCode = REFUSED;
}
