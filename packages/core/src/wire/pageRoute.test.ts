import { describe, expect, it } from 'vitest';
import { addressOf } from './addressOf.js';
import { pageRoutes } from './pageRoute.js';
import { PAGE_ROUTES } from './pageRoutes.js';

describe('the routes that are written down for the page', () => {
  it('are those of the descriptions', () => {
    expect(PAGE_ROUTES).toEqual(pageRoutes());
  });

  it('name every part of their address', () => {
    for (const [name, { at, path = [] }] of Object.entries(PAGE_ROUTES)) {
      const filled = addressOf({ at }, Object.fromEntries(path.map((part) => [part, 'x'])), {});
      expect(filled, name).not.toMatch(/[{}]|undefined/u);
    }
  });

  it('mark what the first page asks, and no engine', () => {
    expect(PAGE_ROUTES.listJobs.isFirst).toBe(true);
    expect(PAGE_ROUTES.getJob.isFirst).toBeUndefined();
  });
});
