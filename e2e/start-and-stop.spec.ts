import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, request, test } from '@playwright/test';
import { freePort } from '../scripts/postgres.mjs';
import { allSaved, putOnBench, reedDocument } from './engines.js';

const root = join(import.meta.dirname, '..');

/** Runs `npm start` until it says that it is ready. */
async function start(port: number, data: string): Promise<ChildProcess> {
  const child = spawn('npm', ['start', '--silent'], {
    cwd: root,
    env: { ...process.env, FETTLE_PORT: String(port), FETTLE_DATA: data, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  await new Promise<void>((resolve, reject) => {
    child.stdout!.on('data', (chunk) => {
      said += chunk;
      if (said.includes(`Fettle is ready at http://127.0.0.1:${port}`)) resolve();
    });
    child.on('exit', (code) => reject(new Error(`start ended with ${code}: ${said}`)));
  });
  return child;
}

/** Ends npm itself and waits until nothing works on the folder any more. */
async function stop(child: ChildProcess, data: string): Promise<void> {
  const ended = once(child, 'exit');
  child.kill('SIGTERM');
  await ended;
  await expect
    .poll(() => execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' }).includes(data), { timeout: 15_000 })
    .toBe(false);
}

test('nothing typed is lost while the server is down, and a stop leaves the data sound', async ({ page }) => {
  test.setTimeout(120_000);
  const port = await freePort();
  const data = join(process.env.FETTLE_E2E_DATA!, 'stopped');
  let running = await start(port, data);
  const origin = `http://127.0.0.1:${port}`;
  const api = await request.newContext({ baseURL: origin });
  const id = await putOnBench(api, reedDocument('Reed 6 power cut'));
  await page.goto(`${origin}/engines/${id}/bores`);
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await allSaved(page);

  // Nothing of it is left running: no PostgreSQL on the folder, no server on the port.
  await stop(running, data);
  await expect(fetch(`${origin}/api/health`)).rejects.toThrow();

  await page.getByLabel('M2 main bore front plane, mm').fill('64.011');
  await page.keyboard.press('Enter');
  await page.keyboard.type('64.012');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No server. 2 changes kept on this device')).toBeVisible();

  const before = Date.now();
  running = await start(port, data);
  expect(Date.now() - before).toBeLessThan(10_000);
  try {
    await allSaved(page);
    const answer = await (await api.get(`/api/jobs/${id}`)).json();
    const texts = answer.readings.map((reading: { text: string }) => reading.text).sort();
    expect(texts).toEqual(['64.010', '64.011', '64.012']);
    // The demo was loaded once, not again.
    expect(await (await api.get('/api/jobs')).json()).toHaveLength(8);
  } finally {
    await stop(running, data);
    await api.dispose();
  }
});

test('a start command that was killed outright leaves nothing in the way of the next one', async () => {
  test.setTimeout(120_000);
  const port = await freePort();
  const data = join(process.env.FETTLE_E2E_DATA!, 'killed');
  const first = await start(port, data);
  const api = await request.newContext({ baseURL: `http://127.0.0.1:${port}` });
  const id = await putOnBench(api, reedDocument('Reed 6 killed'));

  // A second one on the same folder is refused, and says what to do.
  const second = spawnSync(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, FETTLE_PORT: String(await freePort()), FETTLE_DATA: data },
    encoding: 'utf8',
  });
  expect(second.status).toBe(1);
  expect(second.stderr).toContain(`it already runs on ${data}`);
  expect((await api.get('/api/health')).ok()).toBe(true);

  const owner = Number(readFileSync(join(data, 'running.pid'), 'utf8'));
  process.kill(owner, 'SIGKILL');
  await once(first, 'exit');
  const again = await start(port, data);
  try {
    expect((await (await api.get(`/api/jobs/${id}`)).json()).document.name).toBe('Reed 6 killed');
  } finally {
    await stop(again, data);
    await api.dispose();
  }
});
