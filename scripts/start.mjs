// npm start: installs, prepares PostgreSQL, migrates, loads the demo data once, builds what is out of date, serves.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { isAbsolute, join } from 'node:path';
import { buildIfNeeded } from './build.mjs';
import { installIfNeeded } from './install.mjs';
import { startCluster } from './postgres.mjs';
import { root } from './root.mjs';

const isDevelopment = process.argv.includes('--dev');
const port = Number(process.env.FETTLE_PORT ?? 4780);
const data = process.env.FETTLE_DATA ?? '.fettle';
const dataFolder = isAbsolute(data) ? data : join(root, data);

/** Names the start command that owns the data folder. */
const ownerFile = join(dataFolder, 'running.pid');
let owns = false;

/** Two start commands on one data folder would stop each other's database. */
function takeOwnership() {
  mkdirSync(dataFolder, { recursive: true });
  const other = existsSync(ownerFile) ? Number(readFileSync(ownerFile, 'utf8')) : 0;
  const command = `/proc/${other}/cmdline`;
  if (
    other > 0 &&
    other !== process.pid &&
    existsSync(command) &&
    readFileSync(command, 'utf8').includes('start.mjs')
  ) {
    throw new Error(
      `it already runs on ${dataFolder} (process ${other}). Stop that one first, or set FETTLE_DATA and FETTLE_PORT.`,
    );
  }
  writeFileSync(ownerFile, String(process.pid));
  owns = true;
}

let cluster = null;
const children = [];
let stopping = false;

async function stop(status) {
  if (stopping) return;
  stopping = true;
  await Promise.all(
    children.map(
      (child) =>
        new Promise((resolve) => {
          if (child.exitCode !== null || child.signalCode !== null) return resolve();
          child.on('exit', resolve);
          child.kill('SIGTERM');
          setTimeout(() => child.kill('SIGKILL'), 10_000).unref();
        }),
    ),
  );
  await cluster?.stop();
  if (owns) rmSync(ownerFile, { force: true });
  process.exit(status);
}

function launch(args, options) {
  // A process group of its own: Ctrl-C reaches only this script, which stops the others in order.
  const child = spawn(process.execPath, args, { cwd: root, detached: true, ...options });
  children.push(child);
  child.on('exit', (code) => {
    if (!stopping) {
      console.error(`Fettle: a part stopped by itself (exit status ${code}); stopping.`);
      void stop(1);
    }
  });
  return child;
}

/** Waits until the watched server of the development mode answers. */
async function answering(at) {
  for (;;) {
    const answer = await fetch(`http://127.0.0.1:${at}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
if (process.env.npm_lifecycle_event) {
  // A SIGTERM to npm ends npm and its shell, but is not passed on: that they are gone is the sign to stop.
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && void stop(0), 500).unref();
}

try {
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    throw new Error(`FETTLE_PORT is “${process.env.FETTLE_PORT}”; give a port from 1 to 65535.`);
  }
  takeOwnership();
  installIfNeeded();
  if (!isDevelopment) buildIfNeeded();
  if (!process.env.DATABASE_URL) cluster = await startCluster(join(dataFolder, 'postgres'), { durable: true });
  const apiPort = isDevelopment ? port + 1 : port;
  const env = {
    ...process.env,
    NODE_ENV: isDevelopment ? 'development' : 'production',
    DATABASE_URL: process.env.DATABASE_URL || cluster.url,
    FETTLE_PORT: String(apiPort),
    FETTLE_LOG: process.env.FETTLE_LOG ?? 'warn',
    ...(isDevelopment ? {} : { FETTLE_WEB: join(root, 'packages/web/dist/page') }),
  };
  const server = launch(
    isDevelopment
      ? [
          'node_modules/tsx/dist/cli.mjs',
          'watch',
          '--clear-screen=false',
          '--conditions=@fettle/source',
          'packages/server/src/main.ts',
        ]
      : ['packages/server/dist/main.js'],
    { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] },
  );
  if (isDevelopment) {
    launch([join(root, 'node_modules/vite/bin/vite.js'), '--port', String(port), '--strictPort'], {
      cwd: join(root, 'packages/web'),
      env: { ...process.env, FETTLE_API: `http://127.0.0.1:${apiPort}` },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
  }
  if (isDevelopment) await answering(apiPort);
  else await new Promise((resolve) => server.on('message', (message) => message === 'ready' && resolve()));
  console.log(`Fettle is ready at http://127.0.0.1:${port}`);
} catch (error) {
  console.error(`Fettle could not start: ${error.message}`);
  await stop(1);
}
