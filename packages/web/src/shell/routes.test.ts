import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PLACES } from '@fettle/core';
import { expect, it } from 'vitest';

it('an invitation leads to ways that the page has', () => {
  const source = readFileSync(join(import.meta.dirname, 'routes.tsx'), 'utf8');
  const begins = new Set([...source.matchAll(/page\('\/([^'/]*)/gu)].map(([, begin]) => begin!));
  expect(PLACES.filter((place) => !begins.has(place))).toEqual([]);
});
