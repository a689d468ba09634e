import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type RequestHandler, type Response, Router } from 'express';
import expressStaticGzip from 'express-static-gzip';
import type { SignsIn } from '../access/Access.js';

/** Stands in the built page where each answer's own nonce goes. */
export const NONCE_PLACEHOLDER = '__FETTLE_NONCE__';

/** Stands there where it says whether one signs in. */
const ACCOUNTS_PLACEHOLDER = '__FETTLE_ACCOUNTS__';

/** The nonce that the content security policy of this answer allows styles with. */
export function nonceOf(response: Response): string {
  return response.locals.nonce as string;
}

/**
 * Serves the built application: its files, and its one page for every other path.
 *
 * @param folder where Vite put the build
 * @param signsIn the page is told whether one signs in, so that it need not ask
 * @throws when there is no build there: start it through `npm start`, which builds
 */
export function webPage(folder: string, signsIn: SignsIn): Router {
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
  const sendPage: RequestHandler = async (_request, response) => {
    // Without the database nobody can tell: then the page asks.
    const accounts = await signsIn().then(
      (isOn) => (isOn ? 'yes' : 'no'),
      () => 'ask',
    );
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(page.replaceAll(NONCE_PLACEHOLDER, nonceOf(response)).replaceAll(ACCOUNTS_PLACEHOLDER, accounts));
  };
  routes.get('/index.html', sendPage);
  routes.use(express.static(folder, { index: false, maxAge: 0 }));
  routes.get('/{*path}', sendPage);
  return routes;
}
