import type { Problem } from './problem.js';

/** The kinds of problem that the server answers with, and what each means. */
export const PROBLEM_KINDS = {
  'invalid-request': { status: 422, title: 'Something in the request is not valid' },
  'not-json': { status: 400, title: 'The body is not JSON' },
  'bad-request': { status: 400, title: 'The request cannot be read' },
  unsupported: { status: 415, title: 'The body comes in a form that is not read here' },
  'not-signed-in': { status: 401, title: 'Nobody is signed in' },
  'not-allowed': { status: 403, title: 'This is not allowed' },
  'password-needed': { status: 403, title: 'The password is needed again' },
  'wrong-host': { status: 421, title: 'Unknown host name' },
  'too-many': { status: 429, title: 'Too many tries' },
  'too-large': { status: 413, title: 'The body is too large' },
  'not-found': { status: 404, title: 'Not found' },
  'stale-version': { status: 409, title: 'Someone else changed it first' },
  'id-in-use': { status: 409, title: 'That id is already in use' },
  'drawer-short': { status: 409, title: 'Too few shells in workshop stock' },
  'halves-fitted': { status: 409, title: 'The shells are already fitted' },
  'took-too-long': { status: 503, title: 'The search took too long' },
  'too-busy': { status: 503, title: 'The server has too much to do' },
  'not-ready': { status: 503, title: 'The database cannot be reached' },
  'disk-full': { status: 507, title: 'The server’s disk is full' },
  'server-fault': { status: 500, title: 'Something went wrong in the server' },
} as const;
export type ProblemKind = keyof typeof PROBLEM_KINDS;

const ADDRESS = '/api/docs#';

/** The `type` of a problem: where its kind is explained. */
export function problemType(kind: ProblemKind): string {
  return `${ADDRESS}${kind}`;
}

/** The kind of a problem; null for one that is not of this API. */
export function problemKind({ type }: Pick<Problem, 'type'>): ProblemKind | null {
  const kind = type.startsWith(ADDRESS) ? type.slice(ADDRESS.length) : '';
  return kind in PROBLEM_KINDS ? (kind as ProblemKind) : null;
}
