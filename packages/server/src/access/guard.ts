import type { RequestHandler } from 'express';
import { ProblemError } from '../problem/problem.js';
import type { AccessSettings } from './settings.js';

/** The name in a Host header, without its port; null where it is none. */
function nameIn(host: string | undefined): string | null {
  return host !== undefined && URL.canParse(`http://${host}`)
    ? new URL(`http://${host}`).hostname.replaceAll(/[[\]]/gu, '').toLowerCase()
    : null;
}

/**
 * Answers only to names of its own: a page on another name that is made to lead to this machine is not one of ours, whatever its browser
 * thinks.
 */
export function ownHostOnly({ hosts }: AccessSettings): RequestHandler {
  return (request, _response, next) => {
    const name = nameIn(request.headers.host);
    if (name === null || !hosts.has(name)) {
      const called = name === null ? 'a name that cannot be read' : `“${name.slice(0, 100)}”`;
      throw new ProblemError('wrong-host', `Unknown host ${called}. If correct, add it to FETTLE_HOSTS.`);
    }
    next();
  };
}

/** Refuses changes that a page of another origin asks for. Who asks without a browser sends no such header. */
export function ownOriginOnly({ isSecure, origin, isBehindProxy }: AccessSettings): RequestHandler {
  return (request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') return next();
    const from = request.headers.origin;
    const own = isBehindProxy ? origin : `${isSecure ? 'https' : 'http'}://${request.headers.host}`;
    const site = request.headers['sec-fetch-site'];
    const isStrange = from === undefined ? site === 'cross-site' || site === 'same-site' : from !== own;
    if (isStrange) {
      throw new ProblemError('not-allowed', 'Change refused: it came from another site’s page. Use Fettle’s own page.');
    }
    next();
  };
}

/** Answers behind a proxy only what came to that over TLS, and says so where the proxy does not pass it on. Whether it is well may be asked by anyone. */
export function overTlsOnly({ isBehindProxy, isSecure }: AccessSettings): RequestHandler {
  return (request, _response, next) => {
    if (isBehindProxy && isSecure && !request.secure && request.path !== '/health') {
      throw new ProblemError(
        'not-allowed',
        'This did not come over TLS, or the proxy does not say so. Let it send X-Forwarded-Proto: https.',
      );
    }
    next();
  };
}
