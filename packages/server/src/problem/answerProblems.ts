import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import { DISK_FULL, type Disk } from './Disk.js';
import { databaseFault } from './databaseFault.js';
import { ProblemError } from './problem.js';

/** When it is worth trying again, s. */
const BUSY_S = 2;
const AWAY_S = 5;
const FULL_S = 30;
/** Time the database has to answer a health check, ms. */
const PROBE_MS = 1000;

/** A value that PostgreSQL cannot hold: signs, dates and numbers beyond its range (class 22 of SQLSTATE). */
const UNSTORABLE: ReadonlySet<string> = new Set(['22003', '22007', '22008', '22021', '22P02', '22P05']);

/** Turns whatever was thrown into a problem; what was not expected is logged whole and shown without its inside. */
function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  const detail = error instanceof Error ? error.message : String(error);
  if (type === 'entity.parse.failed') {
    return new ProblemError('not-json', `The body cannot be read as JSON: ${(error as Error).message}`);
  }
  if (type === 'entity.too.large') return new ProblemError('too-large', 'The body is larger than this place takes.');
  if (status === 404) return new ProblemError('not-found', 'File not found.');
  if (status === 415) {
    return new ProblemError('unsupported', `${detail}. Send JSON in UTF-8, plain or compressed with gzip.`);
  }
  // Percent signs that stand for nothing, compressed bodies that break off, lengths that do not agree: what Express and its readers say.
  if (status !== undefined && status >= 400 && status < 500) return new ProblemError('bad-request', `${detail}.`);
  // Text that PostgreSQL does not take; nothing that was read with a schema gets so far.
  if (code !== undefined && UNSTORABLE.has(code)) {
    return new ProblemError('invalid-request', 'There is something in the request that cannot be stored.');
  }
  if (code === '23505')
    return new ProblemError('id-in-use', 'The same id came twice at the same moment; send it again.');
  switch (databaseFault(error)) {
    case 'full':
      return new ProblemError('disk-full', `${DISK_FULL} What you sent was not saved.`, [], {}, FULL_S);
    case 'busy': {
      const message = 'The database has too much to do at the moment; what you sent was not saved. Try again shortly.';
      return new ProblemError('too-busy', message, [], {}, BUSY_S);
    }
    case 'away': {
      const message = 'PostgreSQL does not answer; what you sent was not saved. Try again shortly.';
      return new ProblemError('not-ready', message, [], {}, AWAY_S);
    }
    case null:
  }
  return new ProblemError('server-fault', 'The fault was logged; what you sent was not saved.');
}

/** True if the database answers at all, within a moment. */
async function answers(database: DataSource): Promise<boolean> {
  const late = new Promise<never>((_, reject) => setTimeout(() => reject(new Error('no answer')), PROBE_MS).unref());
  return Promise.race([database.query('SELECT 1'), late]).then(
    () => true,
    () => false,
  );
}

/** The one place where failures become HTTP. */
export function answerProblems(database: DataSource, disk: Disk): ErrorRequestHandler {
  return async (error, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    let problem = problemOf(error);
    // A connection can break in ways that nobody has foreseen: what fails while the database is away is not the request's fault.
    if (problem.kind === 'server-fault' && !(await answers(database))) problem = problemOf({ code: 'ECONNREFUSED' });
    if (problem.kind === 'disk-full') disk.wasFull();
    const { status } = problem.toJSON();
    if (status >= 500) request.log.error({ err: error }, problem.message);
    if (problem.retryAfterS !== null) response.set('retry-after', String(problem.retryAfterS));
    response.status(status).type('application/problem+json').send(JSON.stringify(problem));
  };
}

export const answerUnknownPath: RequestHandler = (request) => {
  throw new ProblemError('not-found', `${request.method} ${request.path}: no such address.`);
};
