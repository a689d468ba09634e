import { type DocumentFault, PROBLEM_KINDS, type Problem, type ProblemKind, problemType } from '@fettle/core';

/** An expected failure on its way to the client, as problem details (RFC 9457). */
export class ProblemError extends Error {
  readonly kind: ProblemKind;
  readonly faults: readonly DocumentFault[];
  /** When it is worth trying again, s; null where that is not known, or never. */
  readonly retryAfterS: number | null;
  /** Extra members of the problem: what is there now, for a stale change. */
  readonly members: Readonly<Record<string, unknown>>;

  constructor(
    kind: ProblemKind,
    detail: string,
    faults: readonly DocumentFault[] = [],
    members: Readonly<Record<string, unknown>> = {},
    retryAfterS: number | null = null,
  ) {
    super(detail);
    this.kind = kind;
    this.faults = faults;
    this.members = members;
    this.retryAfterS = retryAfterS;
  }

  toJSON(): Problem & Record<string, unknown> {
    return {
      type: problemType(this.kind),
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
