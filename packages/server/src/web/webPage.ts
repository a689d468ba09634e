import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Response, Router } from 'express';
import expressStaticGzip from 'express-static-gzip';

/** Stands in the built page where each answer's own nonce goes. */
export const NONCE_PLACEHOLDER = '__FETTLE_NONCE__';

/** The nonce that the content security policy of this answer allows styles with. */
export function nonceOf(response: Response): string {
  return response.locals.nonce as string;
}

/**
 * Serves the built application: its files, and its one page for every other path.
 *
 * @param folder where Vite put the build
 * @throws when there is no build there: start it through `npm start`, which builds
 */
export function webPage(folder: string): Router {
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  const routes = Router();
  routes.use(
    '/assets',
    // Built files lie there compressed as well.
    expressStaticGzip(join(folder, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      index: false,
      serveStatic: { immutable: true, maxAge: '365d', index: false, fallthrough: false },
    }),
  );
  routes.use(express.static(folder, { index: false, maxAge: 0 }));
  routes.get('/{*path}', (_request, response) => {
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(page.replaceAll(NONCE_PLACEHOLDER, nonceOf(response)));
  });
  return routes;
}
