import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ProblemError } from './problem.js';

/** Turns whatever was thrown into a problem; what was not expected is logged whole and shown without its inside. */
function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  if (type === 'entity.parse.failed') {
    return new ProblemError('not-json', `The body cannot be read as JSON: ${(error as Error).message}`);
  }
  if (type === 'entity.too.large') return new ProblemError('too-large', 'The body is larger than this place takes.');
  if (status === 404) return new ProblemError('not-found', 'There is no such file.');
  if (code === '23505')
    return new ProblemError('id-in-use', 'The same id came twice at the same moment; send it again.');
  if (code === 'ECONNREFUSED' || code === '57P01' || code === '57P03') {
    return new ProblemError('not-ready', 'PostgreSQL does not answer; what you sent was not saved. Try again shortly.');
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
  response.status(status).type('application/problem+json').send(JSON.stringify(problem));
};

export const answerUnknownPath: RequestHandler = (request) => {
  throw new ProblemError('not-found', `There is nothing at ${request.method} ${request.path}.`);
};
