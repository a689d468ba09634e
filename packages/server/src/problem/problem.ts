import type { DocumentFault, Problem } from '@fettle/core';

/** The kinds of problem that the server answers with, and what each means. */
export const PROBLEM_KINDS = {
  'invalid-request': { status: 422, title: 'Something in the request is not valid' },
  'not-json': { status: 400, title: 'The body is not JSON' },
  'bad-request': { status: 400, title: 'The request cannot be read' },
  unsupported: { status: 415, title: 'The body comes in a form that is not read here' },
  'too-large': { status: 413, title: 'The body is too large' },
  'not-found': { status: 404, title: 'There is no such thing' },
  'stale-version': { status: 409, title: 'Somebody else changed it first' },
  'id-in-use': { status: 409, title: 'That id already stands for something else' },
  'drawer-short': { status: 409, title: 'The workshop drawer has too few of a half' },
  'halves-fitted': { status: 409, title: 'The halves were fitted already' },
  'took-too-long': { status: 503, title: 'The search took too long' },
  'not-ready': { status: 503, title: 'The database cannot be reached' },
  'server-fault': { status: 500, title: 'Something went wrong in the server' },
} as const;
export type ProblemKind = keyof typeof PROBLEM_KINDS;

/** An expected failure on its way to the client, as problem details (RFC 9457). */
export class ProblemError extends Error {
  readonly kind: ProblemKind;
  readonly faults: readonly DocumentFault[];
  /** Extra members of the problem: what is there now, for a stale change. */
  readonly members: Readonly<Record<string, unknown>>;

  constructor(
    kind: ProblemKind,
    detail: string,
    faults: readonly DocumentFault[] = [],
    members: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
    this.kind = kind;
    this.faults = faults;
    this.members = members;
  }

  toJSON(): Problem & Record<string, unknown> {
    return {
      type: `/api/docs#${this.kind}`,
      title: PROBLEM_KINDS[this.kind].title,
      status: PROBLEM_KINDS[this.kind].status,
      detail: this.message,
      ...(this.faults.length > 0 ? { errors: [...this.faults] } : {}),
      ...this.members,
    };
  }
}

/** A request whose body, path or query does not satisfy its schema. */
export function invalidRequest(faults: readonly DocumentFault[]): ProblemError {
  const first = faults[0];
  const where = first?.path ? `${first.path}: ` : '';
  const more = faults.length > 1 ? ` (and ${faults.length - 1} more)` : '';
  return new ProblemError('invalid-request', `${where}${first?.message ?? 'not valid'}${more}`, faults);
}
