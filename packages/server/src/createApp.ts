import { randomBytes } from 'node:crypto';
import { type EndpointName, LIVE_AT } from '@fettle/core';
import compression from 'compression';
import express, { type Express, type Request, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { type AccessParts, signsInOnce, whoAsks } from './access/Access.js';
import { DeviceService } from './access/deviceService.js';
import { overTlsOnly, ownHostOnly, ownOriginOnly } from './access/guard.js';
import { limitTries, SECRETS_AT, TRIES_A_MINUTE } from './access/limitTries.js';
import { PeopleService } from './access/peopleService.js';
import { sessions } from './access/sessions.js';
import { type AccessSettings, ON_THIS_MACHINE } from './access/settings.js';
import { photoHandlers } from './assembly/photoHandlers.js';
import { auditHandlers } from './audit/auditHandlers.js';
import { databaseTag } from './database/databaseTag.js';
import { removeSamples } from './demo/removeSamples.js';
import { drawerHandlers } from './drawer/drawerHandlers.js';
import { DrawerService } from './drawer/drawerService.js';
import { KitService } from './drawer/kitService.js';
import { typeHandlers } from './engineType/typeHandlers.js';
import { TypeService } from './engineType/typeService.js';
import type { FitPool } from './fit/fitPool.js';
import { historyHandlers } from './history/historyHandlers.js';
import { keepEvidence } from './history/keepEvidence.js';
import { instrumentHandlers } from './instrument/instrumentHandlers.js';
import { InstrumentService } from './instrument/instrumentService.js';
import { StudyService } from './instrument/studyService.js';
import { jobHandlers, jobTags } from './job/jobHandlers.js';
import { JobService } from './job/jobService.js';
import { ProgressKeeper } from './job/ProgressKeeper.js';
import { readingHandlers } from './job/readingHandlers.js';
import { ReadingService } from './job/readingService.js';
import { LiveHub } from './live/LiveHub.js';
import { liveRoutes } from './live/liveRoutes.js';
import { accessHandlers } from './people/accessHandlers.js';
import { answerProblems, answerUnknownPath } from './problem/answerProblems.js';
import { DISK_FULL, Disk } from './problem/Disk.js';
import { errorForLog, requestForLog } from './problem/logging.js';
import { ProblemError } from './problem/problem.js';
import type { BodyPool } from './read/BodyPool.js';
import type { PdfPool } from './sheet/pdfPool.js';
import { sheetHandlers } from './sheet/sheetHandlers.js';
import { UnsentService } from './unsent/UnsentService.js';
import { unsentHandlers } from './unsent/unsentHandlers.js';
import { nonceOf, webPage } from './web/webPage.js';
import { docsRoutes } from './wire/docsRoutes.js';
import { Shared } from './wire/Shared.js';
import { type HandlersOf, serve } from './wire/serve.js';

export interface Parts {
  readonly database: DataSource;
  readonly fits: FitPool;
  readonly reads: BodyPool;
  readonly pdfs: PdfPool;
  readonly log: Logger;
  /** Folder of the built web application; null serves the API alone (Vite serves the page in development). */
  readonly webFolder: string | null;
  /** From where it may be reached, and on what terms; on this machine alone where nothing is said. */
  readonly settings?: AccessSettings;
  /** The certificate of the workshop's own authority, which devices are told to trust. */
  readonly authority?: string | null;
  /** What is wrong with the certificate, for the owner to read; null for nothing. */
  readonly certificateFault?: () => string | null;
  /** A folder on the disk that the database writes to; null where that is another machine's. */
  readonly dataFolder?: string | null;
  /** How often secrets may be tried from one address within a minute. */
  readonly triesAMinute?: number;
}

/** A server that is ready to listen, and what ends what it does beside answering. */
export interface App {
  readonly app: Express;
  readonly people: PeopleService;
  close(): Promise<void>;
}

/** True if a request is for data, which shows nothing by itself. */
function isData({ path }: Pick<Request, 'path'>): boolean {
  return path.startsWith('/api/') && !path.startsWith('/api/docs');
}

/** An application that answers nothing yet: it compresses, logs, and says with each answer what a browser may do with it. */
function bareApp(settings: AccessSettings, log: Logger): Express {
  const app = express();
  app.disable('x-powered-by');
  // Who asks is said by the connection, or by the one proxy on this machine.
  app.set('trust proxy', settings.isBehindProxy ? 'loopback' : false);
  // What is told at once is not held back to be compressed.
  app.use(
    compression({ filter: (request, response) => request.path !== LIVE_AT && compression.filter(request, response) }),
  );
  app.set('etag', false);
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: log.isLevelEnabled('info') && { ignore: (request) => request.url === '/api/health' },
      serializers: {
        req: requestForLog,
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
        err: errorForLog,
      },
      wrapSerializers: false,
    }),
  );
  app.use((request, response, next) => {
    if (!isData(request)) response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  const nonceSource = (request: unknown, response: unknown) =>
    isData(request as Request) ? "'self'" : `'nonce-${nonceOf(response as Response)}'`;
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          // The search's integer solver is WebAssembly.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", nonceSource],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          manifestSrc: ["'self'"],
          connectSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: settings.isSecure && { maxAge: 31_536_000, includeSubDomains: false },
    }),
  );
  return app;
}

interface HandledBy extends Pick<Parts, 'database' | 'fits' | 'reads' | 'pdfs'> {
  readonly disk: Disk;
  readonly live: LiveHub;
  readonly access: AccessParts;
  readonly jobs: JobService;
  /** Told of each engine that was changed. */
  readonly onTouched: (id: string) => void;
}

/** What answers each endpoint. */
function allHandlers({
  database,
  fits,
  reads,
  pdfs,
  disk,
  live,
  access,
  jobs,
  onTouched,
}: HandledBy): HandlersOf<EndpointName> {
  return {
    health: async () => {
      try {
        await database.query('SELECT 1');
      } catch {
        throw new ProblemError('not-ready', 'PostgreSQL does not answer.');
      }
      if (await disk.isFull()) throw new ProblemError('disk-full', DISK_FULL);
      return { status: 'ok' };
    },
    ...jobHandlers(jobs, database, reads),
    ...readingHandlers(new ReadingService(database, onTouched)),
    ...drawerHandlers(new DrawerService(database, onTouched), new KitService(database), jobs),
    ...typeHandlers(new TypeService(database)),
    ...instrumentHandlers(new InstrumentService(database), new StudyService(database), database),
    ...sheetHandlers(database, jobs, pdfs),
    ...historyHandlers(database),
    ...photoHandlers(database),
    ...accessHandlers(access),
    ...auditHandlers(database),
    ...unsentHandlers(new UnsentService(database)),
    removeSamples: ({ body: { by } }) => removeSamples(database, by, onTouched),
    sayWhere: async ({ body: { by, ...where } }) => {
      live.isHere({ ...where, name: by });
      return { said: true };
    },
    // A caller that hangs up cancels its search.
    fit: ({ body }, asker) => fits.solve(body, asker),
    shims: ({ body }, asker) => fits.shims(body, asker),
  };
}

/** The whole HTTP side of Fettle, ready to listen. */
export async function createApp({
  database,
  fits,
  reads,
  pdfs,
  log,
  webFolder,
  settings = ON_THIS_MACHINE,
  authority = null,
  certificateFault = () => null,
  dataFolder = null,
  triesAMinute = TRIES_A_MINUTE,
}: Parts): Promise<App> {
  const app = bareApp(settings, log);
  // What is answered is kept by nobody, a refusal neither; where nobody signs in, it may be looked at again: see who asks.
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  app.use(ownHostOnly(settings), ownOriginOnly(settings));

  app.use('/api/docs', docsRoutes());
  const disk = new Disk(dataFolder);
  app.use('/api', (request, response, next) => {
    const isChange = request.method !== 'GET' && request.method !== 'HEAD';
    if (isChange) response.on('finish', () => response.statusCode < 300 && disk.hasRoom());
    next();
  });
  const people = new PeopleService(database);
  const devices = new DeviceService(database);
  const access: AccessParts = { settings, database, people, devices, certificateFault };
  const kept = await sessions(database, settings, log);
  const live = new LiveHub(database, log);
  await live.start();
  const signsIn = signsInOnce(access);
  app.use('/api', overTlsOnly(settings));
  app.use('/api', whoAsks(access, signsIn, kept.read));
  app.use(SECRETS_AT, limitTries(triesAMinute));
  app.use(liveRoutes(live));
  const progress = new ProgressKeeper(
    database,
    log,
    () => live.changed(['benches', 'known'], null, null),
    keepEvidence,
  );
  const onTouched = (id: string) => progress.touched(id);
  const jobs = new JobService(database, onTouched);
  const handlers = allHandlers({ database, fits, reads, pdfs, disk, live, access, jobs, onTouched });
  const boot = randomBytes(6).toString('base64url');
  const tags = new Shared(() => databaseTag(database));
  app.use(serve(handlers, jobTags(jobs), () => tags.ask(''), boot, live, reads));
  app.use('/api', answerUnknownPath);
  if (authority !== null) {
    app.get('/workshop.crt', (_request, response) => {
      response.type('application/x-x509-ca-cert').attachment('workshop.crt').send(authority);
    });
  }
  if (webFolder !== null) app.use(webPage(webFolder, signsIn));
  app.use(answerUnknownPath);
  app.use(answerProblems(database, disk));
  void progress.begin();
  return {
    app,
    people,
    close: async () => {
      kept.close();
      await progress.close();
      await live.close();
    },
  };
}
