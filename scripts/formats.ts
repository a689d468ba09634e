/** Writes the JSON Schemas of the open formats into docs/formats; with --check only tells whether they are current. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fitErrorSchema, fitPlanSchema, fitRequestSchema, jobDocumentSchema } from '@fettle/core';
import { z } from 'zod';

const folder = join(import.meta.dirname, '../docs/formats');
const schemas = {
  'fit-request-1': { schema: fitRequestSchema, title: 'Fettle fit request, version 1' },
  'fit-plan-1': { schema: fitPlanSchema, title: 'Fettle fit plan, version 1' },
  'error-1': { schema: fitErrorSchema, title: 'Fettle error line, version 1' },
  job: { schema: jobDocumentSchema, title: 'Fettle job document' },
} as const;

const isCheck = process.argv.includes('--check');
mkdirSync(folder, { recursive: true });
let stale = 0;
for (const [name, { schema, title }] of Object.entries(schemas)) {
  const text = `${JSON.stringify({ title, ...z.toJSONSchema(schema, { io: 'input' }) }, null, 2)}\n`;
  const file = join(folder, `${name}.schema.json`);
  if (!isCheck) writeFileSync(file, text);
  else if (readFileSync(file, 'utf8') !== text) {
    console.error(`docs/formats/${name}.schema.json is out of date: run npm run formats`);
    stale += 1;
  }
}
process.exitCode = stale > 0 ? 1 : 0;
