/** Writes the JSON Schemas of the open formats into docs/formats; with --check only tells whether they are current. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openFormats } from '@fettle/core';

const folder = join(import.meta.dirname, '../docs/formats');
const isCheck = process.argv.includes('--check');
mkdirSync(folder, { recursive: true });
let stale = 0;
for (const [name, schema] of Object.entries(openFormats())) {
  const text = `${JSON.stringify(schema, null, 2)}\n`;
  const file = join(folder, `${name}.schema.json`);
  if (!isCheck) writeFileSync(file, text);
  else if (!existsSync(file) || readFileSync(file, 'utf8') !== text) {
    console.error(`docs/formats/${name}.schema.json is out of date: run npm run formats`);
    stale += 1;
  }
}
process.exitCode = stale > 0 ? 1 : 0;
