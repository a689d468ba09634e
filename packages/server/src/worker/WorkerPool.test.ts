import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, expect, it } from 'vitest';
import { WorkerPool } from './WorkerPool.js';

const MB = 2 ** 20;
const WORDS = { what: 'Holding it', remedy: 'Hold less.' };
const asker = { client: 'Wren', gone: new AbortController().signal };
let pool: WorkerPool;
afterEach(() => pool.close());

const poolOf = (idleMs: number) =>
  new WorkerPool(import.meta.url, '../testing/holdingWorker', { threads: 1, mostMb: 900, longestS: 60, idleMs });
const hold = (mb: number) => pool.run<number>('default', { mb }, asker, WORDS);

it('gives back what a thread has held once nobody asks, and goes on with a fresh one', async () => {
  pool = poolOf(300);
  const first = await hold(300);
  const held = process.memoryUsage.rss();
  for (let tries = 0; tries < 100 && process.memoryUsage.rss() > held - 150 * MB; tries += 1) await wait(100);
  expect(held - process.memoryUsage.rss()).toBeGreaterThanOrEqual(150 * MB);
  expect(await hold(0)).not.toBe(first);
});

it('keeps its threads where they hold little, and while they are asked', async () => {
  pool = poolOf(150);
  const first = await hold(1);
  await wait(500);
  expect(await hold(0)).toBe(first);
  await hold(250);
  for (let times = 0; times < 10; times += 1) {
    await wait(50);
    expect(await hold(0)).toBe(first);
  }
});
