import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { expect, request, test } from '@playwright/test';
import { freePort, startCluster } from '../scripts/postgres.mjs';
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
  test.setTimeout(240_000);
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
  await expect(page.getByText('No server. 2 changes saved on this device')).toBeVisible();

  const before = Date.now();
  running = await start(port, data);
  expect(Date.now() - before).toBeLessThan(60_000);
  try {
    await allSaved(page);
    const answer = await (await api.get(`/api/jobs/${id}`)).json();
    const texts = answer.readings.map((reading: { text: string }) => reading.text).sort();
    expect(texts).toEqual(['64.010', '64.011', '64.012']);
    // The demo was loaded once, not again.
    expect((await (await api.get('/api/jobs')).json()).jobs).toHaveLength(13);
  } finally {
    await stop(running, data);
    await api.dispose();
  }
});

/** Runs the command line on a data folder. */
function fettle(data: string, ...words: string[]) {
  return spawnSync('npm', ['run', '-s', 'fettle', '--', ...words], {
    cwd: root,
    env: { ...process.env, FETTLE_DATA: data, DATABASE_URL: '' },
    encoding: 'utf8',
  });
}

/** The server's process, which a start command began. */
function serverOf(owner: number): string {
  const isServer = (pid: string) => {
    try {
      const [, parent] = /^PPid:\t(\d+)$/mu.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))!;
      return Number(parent) === owner && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('main.js');
    } catch {
      // It has ended meanwhile.
      return false;
    }
  };
  return readdirSync('/proc').find((name) => /^\d+$/u.test(name) && isServer(name))!;
}

test('a backup holds pictures and signed sheets, goes into another folder, and a newer one is refused', async () => {
  test.setTimeout(300_000);
  const port = await freePort();
  const folder = process.env.FETTLE_E2E_DATA!;
  const [data, elsewhere] = [join(folder, 'locked'), join(folder, 'elsewhere')];
  const file = join(folder, 'workshop.fettle');
  let running = await start(port, data);
  const api = await request.newContext({ baseURL: `http://127.0.0.1:${port}` });
  const picture = readFileSync(join(root, 'docs/screenshots/choose.png'));
  const photo = randomUUID();
  const id = await putOnBench(api, reedDocument('Reed 6 kept'));
  const put = await api.put(`/api/jobs/${id}/photos/${photo}`, {
    data: { by: 'Wren', type: 'image/png', data: picture.toString('base64') },
  });
  expect(put.status()).toBe(201);
  const signed = await api.post(`/api/jobs/${id}/sheets`, { data: { by: 'Wren', seen: 1, revision: 1 } });
  const { hash } = await signed.json();

  // Of who is root, neither the server nor the database can read the superuser's password.
  if (process.getuid?.() === 0) {
    const { uid, mode } = statSync(join(data, 'postgres/password'));
    expect([uid, mode & 0o777]).toEqual([0, 0o600]);
    const owner = Number.parseInt(readFileSync(join(data, 'running.pid'), 'utf8'), 10);
    const user = statSync(`/proc/${serverOf(owner)}`).uid;
    expect(user).not.toBe(0);
    expect(user).not.toBe(statSync(join(data, 'postgres/data')).uid);
  }

  // While it runs; never over another file.
  expect(fettle(data, 'backup', file)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining('53 engines and 1 picture'),
  });
  expect(fettle(data, 'backup', file)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('exists'),
  });
  expect(fettle(data, 'restore', file)).toMatchObject({ status: 2, stderr: expect.stringContaining('is running') });
  await stop(running, data);

  // Into another folder, where nothing was.
  expect(fettle(elsewhere, 'restore', file)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining('53 engines'),
  });
  running = await start(port, elsewhere);
  const back = await api.get(`/api/jobs/${id}/photos/${photo}`);
  expect((await back.body()).equals(picture)).toBe(true);
  expect((await (await api.get(`/api/jobs/${id}/sheets/1`)).json()).hash).toBe(hash);
  expect((await (await api.get('/api/jobs')).json()).jobs).toHaveLength(13);
  await stop(running, elsewhere);

  // What a newer version has written is refused, and what is there stays.
  const cluster = await startCluster(join(elsewhere, 'postgres'), { durable: false });
  const newer = join(folder, 'newer.fettle');
  const psql = (sql: string) =>
    execFileSync('psql', [cluster.url, '--no-psqlrc', '--command', sql], { encoding: 'utf8' });
  psql(`INSERT INTO "migrations" ("timestamp", "name") VALUES (1999000000000, 'Newer1999000000000')`);
  await cluster.stop();
  expect(fettle(elsewhere, 'backup', newer).status).toBe(0);
  expect(fettle(elsewhere, 'restore', file)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('newer version'),
  });
  expect(fettle(data, 'restore', newer)).toMatchObject({ status: 2, stderr: expect.stringContaining('newer version') });
  expect(fettle(data, 'restore', join(root, 'package.json')).status).toBe(2);
  running = await start(port, data);
  expect((await (await api.get(`/api/jobs/${id}`)).json()).document.name).toBe('Reed 6 kept');
  await stop(running, data);
  await api.dispose();
});

test('a start command that was killed outright leaves nothing in the way of the next one', async () => {
  test.setTimeout(240_000);
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

  const owner = Number.parseInt(readFileSync(join(data, 'running.pid'), 'utf8'), 10);
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

/** Runs the start command until it ends by itself. */
function failing(env: Record<string, string>, folder = root) {
  const { status, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], {
    cwd: folder,
    env: { ...process.env, DATABASE_URL: '', ...env },
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { status, stderr };
}

test('a port that is taken, a wrong DATABASE_URL and a stale pid file are each told plainly', async () => {
  test.setTimeout(240_000);
  const port = await freePort();
  const data = join(process.env.FETTLE_E2E_DATA!, 'refused');
  const taken = createServer().listen(port, '127.0.0.1');
  await once(taken, 'listening');
  const busy = failing({ FETTLE_PORT: String(port), FETTLE_DATA: data });
  taken.close();
  expect(busy.status).toBe(1);
  expect(busy.stderr).toContain(`port ${port} is in use`);
  expect(busy.stderr).toContain(`FETTLE_PORT=${port + 1}`);

  const env = { FETTLE_PORT: String(port), FETTLE_DATA: data };
  expect(failing({ ...env, DATABASE_URL: 'somewhere' }).stderr).toContain('DATABASE_URL is not an address');
  expect(failing({ ...env, DATABASE_URL: 'mysql://a@b/c' }).stderr).toContain('begins with “mysql://”');
  const gone = failing({ ...env, DATABASE_URL: 'postgresql://wren@127.0.0.1:9/reed' });
  expect(gone.status).toBe(1);
  expect(gone.stderr).toContain('the database “reed” at 127.0.0.1:9 cannot be opened');
  expect(gone.stderr).not.toMatch(/\n\s+at /u);

  // One sentence each, and no trace of the program.
  const few = spawnSync('bash', ['-c', 'ulimit -n 100 && exec "$0" scripts/start.mjs', process.execPath], {
    cwd: root,
    env: { ...process.env, ...env },
    encoding: 'utf8',
  });
  expect(few.stderr.trim().split('\n')).toEqual([
    'Fettle could not start: this user may open only 100 files at once, and it needs 256. Say first: ulimit -n 1024',
  ]);
  // Nobody makes a folder there, root neither.
  const readOnly = failing({ ...env, FETTLE_DATA: '/sys/fettle' })
    .stderr.trim()
    .split('\n');
  expect(readOnly).toEqual([
    'Fettle could not start: this user may not write to /sys/fettle. Allow it, or choose another folder: FETTLE_DATA=… npm start',
  ]);

  // The number of a process that lives, but is another one than the file was written by.
  mkdirSync(data, { recursive: true });
  writeFileSync(join(data, 'running.pid'), `${process.pid}\n1\n`);
  // What a power cut in the middle of making the database leaves.
  for (const half of ['data', 'data.making/base']) mkdirSync(join(data, 'postgres', half), { recursive: true });
  const running = await start(port, data);
  await stop(running, data);
});

test('a database that stops, and a server that does, are started again, and the page says so meanwhile', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const port = await freePort();
  const data = join(process.env.FETTLE_E2E_DATA!, 'dying');
  const running = await start(port, data);
  const origin = `http://127.0.0.1:${port}`;
  const api = await request.newContext({ baseURL: origin });
  try {
    const id = await putOnBench(api, reedDocument('Reed 6 database gone'));
    await page.goto(`${origin}/engines/${id}/bores`);
    await allSaved(page);
    const postmaster = Number(readFileSync(join(data, 'postgres/data/postmaster.pid'), 'utf8').split('\n')[0]);
    process.kill(postmaster, 'SIGKILL');
    await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
    await page.keyboard.press('Enter');
    await allSaved(page);
    await expect
      .poll(async () => (await (await api.get(`/api/jobs/${id}`)).json()).readings?.length, { timeout: 30_000 })
      .toBe(1);

    const server = execFileSync('pgrep', ['-f', 'packages/server/dist/main.js'], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(Number)
      .find((pid) => readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`FETTLE_PORT=${port}\0`));
    process.kill(server!, 'SIGKILL');
    await page.getByLabel('M2 main bore front plane, mm').fill('64.011');
    await page.keyboard.press('Enter');
    await expect(page.getByText('No server. 1 change saved on this device')).toBeVisible();
    await expect(page.getByText('All saved')).toBeVisible({ timeout: 30_000 });
  } finally {
    await stop(running, data);
    await api.dispose();
  }
});

test('a clone where the database’s user cannot enter keeps its data in a place of its own', async () => {
  test.skip(
    process.getuid?.() !== 0,
    'only root has folders that others cannot enter, and another user for the database',
  );
  test.setTimeout(240_000);
  const clone = join('/root', `fettle-e2e-${process.pid}`);
  mkdirSync(clone, { mode: 0o700 });
  let place: string | undefined;
  try {
    for (const part of ['scripts', 'package.json', 'package-lock.json']) {
      cpSync(join(root, part), join(clone, part), { recursive: true });
    }
    for (const part of ['node_modules', 'packages', 'e2e', 'docs']) symlinkSync(join(root, part), join(clone, part));
    for (const part of ['tsconfig.json', 'tsconfig.base.json']) cpSync(join(root, part), join(clone, part));
    const startOnce = async () => {
      const port = await freePort();
      const { FETTLE_DATA: _, ...env } = process.env;
      const child = spawn(process.execPath, ['scripts/start.mjs'], {
        cwd: clone,
        env: { ...env, FETTLE_PORT: String(port), DATABASE_URL: '' },
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      let said = '';
      await new Promise<void>((resolve, reject) => {
        child.stdout!.on('data', (chunk) => {
          said += chunk;
          if (said.includes('Fettle is ready')) resolve();
        });
        child.on('exit', (code) => reject(new Error(`start ended with ${code}: ${said}`)));
      });
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
      return /data is stored in (\S+)/u.exec(said)?.[1];
    };
    place = await startOnce();
    expect(place).toMatch(/^\/var\/lib\/fettle\/fettle-e2e-/u);
    expect(existsSync(join(place!, 'data/PG_VERSION'))).toBe(true);
    // Found again.
    expect(await startOnce()).toBe(place);
  } finally {
    rmSync(clone, { recursive: true, force: true });
    if (place) rmSync(place, { recursive: true, force: true });
  }
});

test('a server that is stopped while its threads are loading stops, and does not die of it', () => {
  test.setTimeout(120_000);
  // Threads are ended at every moment of their loading; Node that is ended by it takes the whole program along.
  const program = `
    import { setTimeout as wait } from 'node:timers/promises';
    import { FitPool } from './packages/server/dist/fit/fitPool.js';
    const whole = new FitPool();
    const began = Date.now();
    // What it answers does not matter, but when.
    const asker = { client: 'test', gone: new AbortController().signal };
    await whole.solve(Buffer.from('{}'), asker).catch(({ problem }) => problem);
    const loaded = Date.now() - began;
    await whole.close();
    for (let at = 0.1; at < 0.6; at += 0.01) {
      const pool = new FitPool();
      await wait(loaded * at);
      await pool.close();
    }
    process.exit(0);`;
  const ran = spawnSync(process.execPath, ['--input-type=module', '--eval', program], { cwd: root, encoding: 'utf8' });
  expect(ran.stderr).toBe('');
  expect(ran.status).toBe(0);
});
