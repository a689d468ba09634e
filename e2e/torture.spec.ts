import { expect, test } from '@playwright/test';
import { torture } from './torture.js';

test('server, database, page and browser are killed in the middle of typing; every figure is there afterwards, once', async () => {
  test.setTimeout(300_000);
  const { kills, wrong } = await torture(12, 7, () => undefined);
  expect(wrong).toEqual([]);
  expect(kills).toEqual({ server: 3, database: 3, page: 3, browser: 3 });
});
