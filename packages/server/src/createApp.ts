import { randomBytes } from 'node:crypto';
import type { EndpointName } from '@fettle/core';
import compression from 'compression';
import express, { type Express, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { photoHandlers } from './assembly/photoHandlers.js';
import { databaseMark } from './database/mark.js';
import { drawerHandlers } from './drawer/drawerHandlers.js';
import { DrawerService } from './drawer/drawerService.js';
import { typeHandlers } from './engineType/typeHandlers.js';
import { TypeService } from './engineType/typeService.js';
import type { FitPool } from './fit/fitPool.js';
import { jobHandlers, jobTags } from './job/jobHandlers.js';
import { JobService } from './job/jobService.js';
import { readingHandlers } from './measure/readingHandlers.js';
import { ReadingService } from './measure/readingService.js';
import { answerProblems, answerUnknownPath } from './problem/answerProblems.js';
import { ProblemError } from './problem/problem.js';
import type { PdfPool } from './sheet/pdfPool.js';
import { sheetHandlers } from './sheet/sheetHandlers.js';
import { nonceOf, webPage } from './web/webPage.js';
import { docsRoutes } from './wire/docsRoutes.js';
import { type HandlersOf, serve } from './wire/serve.js';

export interface Parts {
  readonly database: DataSource;
  readonly fits: FitPool;
  readonly pdfs: PdfPool;
  readonly log: Logger;
  /** Folder of the built web application; null serves the API alone (Vite serves the page in development). */
  readonly webFolder: string | null;
}

/** The whole HTTP side of Fettle, ready to listen. */
export function createApp({ database, fits, pdfs, log, webFolder }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(compression());
  app.set('etag', false);
  app.use(pinoHttp({ logger: log, autoLogging: { ignore: (request) => request.url === '/api/health' } }));
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  const nonceSource = (_request: unknown, response: unknown) => `'nonce-${nonceOf(response as Response)}'`;
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
          connectSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );

  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-cache');
    next();
  });
  app.use('/api/docs', docsRoutes());
  const jobs = new JobService(database);
  const handlers: HandlersOf<EndpointName> = {
    health: async () => {
      try {
        await database.query('SELECT 1');
      } catch {
        throw new ProblemError('not-ready', 'PostgreSQL does not answer.');
      }
      return { status: 'ok' };
    },
    ...jobHandlers(jobs, database),
    ...readingHandlers(new ReadingService(database)),
    ...drawerHandlers(new DrawerService(database), jobs),
    ...typeHandlers(new TypeService(database)),
    ...sheetHandlers(database, jobs, pdfs),
    ...photoHandlers(database),
    // A caller that hangs up cancels its search.
    fit: ({ body }, { gone }) => fits.solve(body, gone),
    shims: ({ body }) => fits.shims(body),
  };
  app.use(serve(handlers, jobTags(jobs), () => databaseMark(database), randomBytes(6).toString('base64url')));
  app.use('/api', answerUnknownPath);
  if (webFolder !== null) app.use(webPage(webFolder));
  app.use(answerUnknownPath);
  app.use(answerProblems);
  return app;
}
