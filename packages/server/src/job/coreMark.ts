import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

let mark: string | null = null;

/**
 * A mark of the rules by which this build says how far an engine is: another one when any file of the core is another. What was worked out
 * under the same mark need not be worked out again.
 */
export function coreMark(): string {
  if (mark !== null) return mark;
  const folder = dirname(fileURLToPath(import.meta.resolve('@fettle/core')));
  const hash = createHash('sha256');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /(?<!\.d|\.test)\.[jt]s$/u.test(name))
    .sort();
  for (const name of files) hash.update(name).update(readFileSync(join(folder, name)));
  mark = hash.digest('base64url').slice(0, 16);
  return mark;
}
