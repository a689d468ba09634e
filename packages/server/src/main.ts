import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { readableSecret } from './access/secrets.js';
import { accessSettings, isLoopback } from './access/settings.js';
import { createApp } from './createApp.js';
import { NewerDatabase } from './database/openDatabase.js';
import { loadDemo } from './demo/loadDemo.js';
import { FitPool } from './fit/fitPool.js';
import { openWorkshop } from './openWorkshop.js';
import { serverLog } from './problem/logging.js';
import { BodyPool } from './read/BodyPool.js';
import { PdfPool } from './sheet/pdfPool.js';
import { CertificateWatch } from './tls/CertificateWatch.js';
import {
  type Certificate,
  fingerprint,
  givenCertificate,
  TLS,
  workshopCertificate,
} from './tls/workshopCertificate.js';
import { bounded, LOOK_EVERY } from './wire/bounded.js';

/** Exit status when what is wrong has been said (EX_CONFIG of sysexits.h). */
const SAID_WHY = 78;

/** How long running requests get to finish when the server is told to stop, ms. */
const GRACE_MS = 5000;

/** Groups of signs in the code that the owner's account is made with: 59 bits. */
const FIRST_GROUPS = 3;

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start Fettle with npm start`);
  return value;
}

function sayWhy(message: string): never {
  console.error(`Fettle could not start: ${message}`);
  process.exit(SAID_WHY);
}

const log = serverLog(process.env.FETTLE_LOG ?? 'info');
const port = Number(required('FETTLE_PORT'));
// Left empty it is this machine alone, as where it is not set: an empty address would be every one.
const host = process.env.FETTLE_HOST?.trim() || '127.0.0.1';
const { FETTLE_HOSTS: hosts, FETTLE_ORIGIN: origin } = process.env;
let settings: ReturnType<typeof accessSettings>;
try {
  settings = accessSettings({ host, port, hosts, origin, firstCode: readableSecret(FIRST_GROUPS) });
} catch (error) {
  sayWhy((error as Error).message);
}

/** What the server shows, read or made now: beyond this machine it speaks over TLS only. */
async function certificate(): Promise<Certificate | null> {
  if (isLoopback(host)) return null;
  const { FETTLE_TLS_CERT: cert, FETTLE_TLS_KEY: key, FETTLE_TLS: folder } = process.env;
  if (cert && key) return givenCertificate(cert, key);
  if (cert || key) sayWhy('Set both FETTLE_TLS_CERT and FETTLE_TLS_KEY, or neither.');
  if (!folder) sayWhy('no folder for a certificate; start Fettle with npm start.');
  return workshopCertificate(folder, [...settings.hosts]);
}

const database = await openWorkshop(required('DATABASE_URL')).catch((error: Error) => {
  const { hostname, port: at, pathname } = new URL(required('DATABASE_URL'));
  const which = `the database “${pathname.slice(1)}” at ${hostname}:${at || '5432'}`;
  if (error instanceof NewerDatabase) sayWhy(`${which} ${error.message}.`);
  sayWhy(`${which} cannot be opened: ${error.message || error.name}. Check DATABASE_URL.`);
});
if (process.env.FETTLE_DEMO !== 'no') await loadDemo(database, log);
const shown = await certificate().catch((error: Error) => sayWhy(`its certificate cannot be used: ${error.message}`));
const watch =
  shown &&
  new CertificateWatch(
    shown,
    async () => (await certificate())!,
    (what) => console.error(`Fettle: ${what}`),
  );
const fits = new FitPool();
const reads = new BodyPool();
const pdfs = new PdfPool();
const { app, people, close } = await createApp({
  database,
  fits,
  reads,
  pdfs,
  log,
  webFolder: process.env.FETTLE_WEB ?? null,
  settings,
  authority: shown?.authority ?? null,
  dataFolder: process.env.FETTLE_DISK || null,
  certificateFault: () => watch?.fault ?? null,
});

/** What is said where other machines can reach it. */
async function welcome(): Promise<void> {
  if (settings.origin === null) return;
  const isFirst = (await people.count()) === 0;
  const lines = [
    `Other devices reach it at ${settings.origin}`,
    ...(shown?.authority
      ? [
          `On each device, trust this workshop’s certificate once: open ${settings.origin}/workshop.crt there.`,
          `Its fingerprint (SHA-256), to be compared on the device: ${fingerprint(shown.authority)}`,
        ]
      : []),
    ...(isFirst
      ? [`Create the owner’s account first: open ${settings.origin} and enter the code ${settings.firstCode}`]
      : []),
  ];
  console.log(lines.join('\n'));
}

let server: Server;
try {
  server = shown
    ? createSecureServer({ ...LOOK_EVERY, ...TLS, key: shown.key, cert: shown.cert }, app)
    : createServer(LOOK_EVERY, app);
} catch (error) {
  sayWhy(`its certificate cannot be used: ${(error as Error).message}`);
}
bounded(server);
if (watch) await watch.start(server as ReturnType<typeof createSecureServer>);
server.on('error', (error) => {
  log.fatal({ err: error }, `cannot listen on ${host}:${port}`);
  process.exit(1);
});
server.listen(port, host, () => {
  log.info(`listening on ${shown ? 'https' : 'http'}://${host}:${port}`);
  void welcome().finally(() => process.send?.('ready'));
});

let stopping = false;
async function stop(reason: string): Promise<void> {
  if (stopping) return;
  stopping = true;
  log.info(`stopping: ${reason}`);
  // The port is free at once: what is started in its place need not wait.
  const closed = new Promise((done) => server.close(done));
  watch?.close();
  // Pages that listen would never hang up by themselves.
  await close();
  const force = setTimeout(() => server.closeAllConnections(), GRACE_MS);
  server.closeIdleConnections();
  await closed;
  clearTimeout(force);
  await fits.close();
  await reads.close();
  await pdfs.close();
  await database.destroy();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop(signal));
// The start command is gone: nobody else will stop this server.
process.on('disconnect', () => void stop('the start command ended'));
