import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

/** The sources, tests and what is made for them aside. */
const sources = readdirSync(import.meta.dirname, { withFileTypes: true, recursive: true })
  .filter((entry) => entry.isFile() && /(?<!\.test|\.d)\.ts$/u.test(entry.name))
  .map((entry) => join(entry.parentPath, entry.name))
  .filter((path) => !path.includes('/testing/'));

/** Everything that they export, by name: an example may use what is not in the public face. */
const core: Record<string, unknown> = Object.assign({}, ...(await Promise.all(sources.map((path) => import(path)))));

/** `@example expression // result` of every docstring in the sources. */
function examples(folder: string): { where: string; expression: string; result: string }[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return examples(path);
    if (!/(?<!\.test)\.ts$/u.test(entry.name)) return [];
    return [...readFileSync(path, 'utf8').matchAll(/@example (.+?) \/\/ (.+)/gu)].map(([, expression, result]) => ({
      where: entry.name,
      expression: expression!,
      result: result!,
    }));
  });
}

/** Every `@example` there is, however it is written. */
function mentions(folder: string): number {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && /(?<!\.test)\.ts$/u.test(entry.name))
    .map((entry) => readFileSync(join(entry.parentPath, entry.name), 'utf8'))
    .reduce((sum, text) => sum + [...text.matchAll(/^ \* @example/gmu)].length, 0);
}

describe('examples in docstrings', () => {
  const found = examples(import.meta.dirname);
  it('are all run: none is written so that it is passed over', () => {
    expect(found.length).toBeGreaterThan(30);
    expect(found.length).toBe(mentions(import.meta.dirname));
  });
  it.each(found)('$where: $expression', ({ expression, result }) => {
    const names = Object.keys(core);
    const run = (code: string) => new Function(...names, `return (${code});`)(...Object.values(core)) as unknown;
    expect(run(expression)).toEqual(run(result));
  });
});
