/**
 * Writes what is made from the core's schemas: the JSON Schemas of the open formats in docs/formats, the routes that pages ask, and the names of the stages. With --check
 * it only tells whether they are current.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openFormats, pageRoutes, stageRows } from '@fettle/core';

const root = join(import.meta.dirname, '..');
const isCheck = process.argv.includes('--check');
let stale = 0;

function write(file: string, text: string): void {
  const path = join(root, file);
  if (!isCheck) writeFileSync(path, text);
  else if (!existsSync(path) || readFileSync(path, 'utf8') !== text) {
    console.error(`${file} is out of date: run npm run formats`);
    stale += 1;
  }
}

mkdirSync(join(root, 'docs/formats'), { recursive: true });
for (const [name, schema] of Object.entries(openFormats())) {
  write(`docs/formats/${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`);
}

const routes = Object.entries(pageRoutes()).map(([name, route]) => `  ${name}: ${JSON.stringify(route)},\n`);
write(
  'packages/core/src/wire/pageRoutes.ts',
  `// Written by npm run formats from pageEndpoints.ts; change that.
import type { PageEndpointName } from './pageEndpoints.js';
import type { PageRoute } from './pageRoute.js';

/** What a page has to know to ask each endpoint, without the schemas: those are many times as large. */
export const PAGE_ROUTES: Readonly<Record<PageEndpointName, PageRoute>> = {
${routes.join('')}};
`,
);
const rows = Object.entries(stageRows()).map(([stage, row]) => `  ${stage}: ${JSON.stringify(row)},\n`);
write(
  'packages/core/src/job/stageRows.ts',
  `// Written by npm run formats from stages.ts; change that.
import type { StageGroup } from './stageGroup.js';
import type { Stage } from './stages.js';

/** What each stage is called and where it stands, in the order of the work. */
export const STAGE_ROWS: Readonly<Record<Stage, { readonly name: string; readonly group: StageGroup }>> = {
${rows.join('')}};
`,
);
process.exitCode = stale > 0 ? 1 : 0;
