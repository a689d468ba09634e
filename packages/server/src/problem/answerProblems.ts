import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ProblemError } from './problem.js';

/** The database is gone, going, coming, or has no room: connection refused or lost, shutting down, starting, disk full. */
const DATABASE_AWAY: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  '57P01',
  '57P02',
  '57P03',
  '53100',
  '53300',
  '08006',
]);

/** The database has too much to do: a statement or a lock took too long, two waited for each other, or no connection was free. */
const DATABASE_BUSY: ReadonlySet<string> = new Set(['57014', '55P03', '40P01', '40001', '25P03']);
const NO_CONNECTION = 'timeout exceeded when trying to connect';
/** When it is worth trying again, s. */
const BUSY_S = 2;
const AWAY_S = 5;

/** Turns whatever was thrown into a problem; what was not expected is logged whole and shown without its inside. */
function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  const detail = error instanceof Error ? error.message : String(error);
  if (type === 'entity.parse.failed') {
    return new ProblemError('not-json', `The body cannot be read as JSON: ${(error as Error).message}`);
  }
  if (type === 'entity.too.large') return new ProblemError('too-large', 'The body is larger than this place takes.');
  if (status === 404) return new ProblemError('not-found', 'There is no such file.');
  if (status === 415) {
    return new ProblemError('unsupported', `${detail}. Send JSON in UTF-8, plain or compressed with gzip.`);
  }
  // Percent signs that stand for nothing, compressed bodies that break off, lengths that do not agree: what Express and its readers say.
  if (status !== undefined && status >= 400 && status < 500) return new ProblemError('bad-request', `${detail}.`);
  // Text that PostgreSQL does not take; nothing that was read with a schema gets so far.
  if (code === '22021' || code === '22P02' || code === '22P05') {
    return new ProblemError('invalid-request', 'There is text in the request that cannot be stored.');
  }
  if (code === '23505')
    return new ProblemError('id-in-use', 'The same id came twice at the same moment; send it again.');
  if ((code !== undefined && DATABASE_BUSY.has(code)) || detail === NO_CONNECTION) {
    const message = 'The database has too much to do at the moment; what you sent was not saved. Try again shortly.';
    return new ProblemError('too-busy', message, [], {}, BUSY_S);
  }
  if (code !== undefined && DATABASE_AWAY.has(code)) {
    const message = 'PostgreSQL does not answer; what you sent was not saved. Try again shortly.';
    return new ProblemError('not-ready', message, [], {}, AWAY_S);
  }
  return new ProblemError('server-fault', 'The fault was logged; what you sent was not saved.');
}

/** The one place where failures become HTTP. */
export const answerProblems: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = problemOf(error);
  const { status } = problem.toJSON();
  if (status >= 500) request.log.error({ err: error }, problem.message);
  if (problem.retryAfterS !== null) response.set('retry-after', String(problem.retryAfterS));
  response.status(status).type('application/problem+json').send(JSON.stringify(problem));
};

export const answerUnknownPath: RequestHandler = (request) => {
  throw new ProblemError('not-found', `There is nothing at ${request.method} ${request.path}.`);
};
