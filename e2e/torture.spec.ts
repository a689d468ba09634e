import { expect, test } from '@playwright/test';
import { torture } from './torture.js';

test('two servers, their database, pages, browser and start commands are killed in the middle of typing, and the disk is full for a while; every figure is there afterwards, once', async () => {
  test.setTimeout(300_000);
  const { kills, wrong } = await torture(14, 7, (line) => console.log(line));
  expect(wrong).toEqual([]);
  expect(kills).toMatchObject({ server: 2, database: 2, backend: 2, page: 2, browser: 2, start: 2 });
});
