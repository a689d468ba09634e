import { randomBytes } from 'node:crypto';
import express, { type Express, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { drawerRoutes } from './drawer/drawerRoutes.js';
import { DrawerService } from './drawer/drawerService.js';
import { typeRoutes } from './engineType/typeRoutes.js';
import { TypeService } from './engineType/typeService.js';
import type { FitPool } from './fit/fitPool.js';
import { fitRoutes } from './fit/fitRoutes.js';
import { jobRoutes } from './job/jobRoutes.js';
import { JobService } from './job/jobService.js';
import { docsRoutes } from './openapi/docsRoutes.js';
import { answerProblems, answerUnknownPath } from './problem/answerProblems.js';
import { ProblemError } from './problem/problem.js';
import { readingRoutes } from './reading/readingRoutes.js';
import { ReadingService } from './reading/readingService.js';
import { nonceOf, webPage } from './web/webPage.js';

export interface Parts {
  readonly database: DataSource;
  readonly fits: FitPool;
  readonly log: Logger;
  /** Folder of the built web application; null serves the API alone (Vite serves the page in development). */
  readonly webFolder: string | null;
}

/** The whole HTTP side of Fettle, ready to listen. */
export function createApp({ database, fits, log, webFolder }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
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

  app.get('/api/health', async (_request, response) => {
    try {
      await database.query('SELECT 1');
    } catch {
      throw new ProblemError('not-ready', 'PostgreSQL does not answer.');
    }
    response.set('cache-control', 'no-store').json({ status: 'ok' });
  });
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-cache');
    next();
  });
  app.use('/api/fit', express.json({ limit: '16mb' }), fitRoutes(fits));
  app.use('/api/docs', docsRoutes());
  app.use('/api', express.json({ limit: '2mb' }));
  const jobs = new JobService(database);
  app.use('/api/drawer', drawerRoutes(new DrawerService(database), jobs));
  app.use('/api/types', typeRoutes(new TypeService(database)));
  app.use('/api/jobs', jobRoutes(jobs), readingRoutes(new ReadingService(database)));
  app.use('/api', answerUnknownPath);
  if (webFolder !== null) app.use(webPage(webFolder));
  app.use(answerUnknownPath);
  app.use(answerProblems);
  return app;
}
