import type { RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { ProblemError } from '../problem/problem.js';

/** Paths where a secret can be tried. */
export const SECRETS_AT = ['/api/session', '/api/devices'];

/** Maximum tries of one address a minute. */
export const TRIES_A_MINUTE = 30;
const WINDOW_MS = 60_000;

/** Limits the tries at secrets from one address within a minute; GET is free. @param limit tries a minute */
export function limitTries(limit: number): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skip: (request) => request.method === 'GET',
    handler: (_request, _response, next) => {
      const wait = WINDOW_MS / 1000;
      next(new ProblemError('too-many', `Too many tries from this device. Try again in ${wait} s.`, [], {}, wait));
    },
  });
}
