import type { Server } from 'node:http';
import { pino } from 'pino';
import { createApp } from './createApp.js';
import { openDatabase } from './database/openDatabase.js';
import { loadDemo } from './demo/loadDemo.js';
import { FitPool } from './fit/fitPool.js';
import { PdfPool } from './sheet/pdfPool.js';

/** Exit status when what is wrong has been said (EX_CONFIG of sysexits.h). */
const SAID_WHY = 78;

/** How long running requests get to finish when the server is told to stop, ms. */
const GRACE_MS = 5000;

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start Fettle with npm start`);
  return value;
}

const log = pino({ level: process.env.FETTLE_LOG ?? 'info' });
const port = Number(required('FETTLE_PORT'));
const host = process.env.FETTLE_HOST ?? '127.0.0.1';
const database = await openDatabase(required('DATABASE_URL')).catch((error: Error) => {
  const { hostname, port: at, pathname } = new URL(required('DATABASE_URL'));
  console.error(
    `Fettle could not start: the database “${pathname.slice(1)}” at ${hostname}:${at || '5432'} cannot be opened: ${error.message || error.name}. Check DATABASE_URL.`,
  );
  process.exit(SAID_WHY);
});
if (process.env.FETTLE_DEMO !== 'no') await loadDemo(database, log);
const fits = new FitPool();
const pdfs = new PdfPool();
const app = createApp({ database, fits, pdfs, log, webFolder: process.env.FETTLE_WEB ?? null });

const server: Server = app.listen(port, host, (error?: Error) => {
  if (error) {
    log.fatal({ err: error }, `cannot listen on ${host}:${port}`);
    process.exit(1);
  }
  log.info(`listening on http://${host}:${port}`);
  process.send?.('ready');
});

let stopping = false;
async function stop(reason: string): Promise<void> {
  if (stopping) return;
  stopping = true;
  log.info(`stopping: ${reason}`);
  const force = setTimeout(() => server.closeAllConnections(), GRACE_MS);
  await new Promise((done) => {
    server.close(done);
    server.closeIdleConnections();
  });
  clearTimeout(force);
  await fits.close();
  await pdfs.close();
  await database.destroy();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop(signal));
// The start command is gone: nobody else will stop this server.
process.on('disconnect', () => void stop('the start command ended'));
