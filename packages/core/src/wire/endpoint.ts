import { z } from 'zod';
import type { Need } from './access.js';
import type { ProblemKind } from './problemKinds.js';
import type { Topic } from './topics.js';

/**
 * One thing that can be asked of the server: where, with what, what comes back, and what may be wrong. The server's routes, the OpenAPI
 * page and the browser's queries are made from it.
 */
export interface Endpoint<
  Path extends z.ZodObject = z.ZodObject,
  Query extends z.ZodObject = z.ZodObject,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
  Method extends string = 'get' | 'post' | 'put' | 'patch' | 'delete',
> {
  readonly method: Method;
  /** As OpenAPI writes it: `/api/jobs/{id}`; one name a member of `path`. */
  readonly at: string;
  /** Who may ask: every endpoint says so. */
  readonly needs: Need;
  readonly summary: string;
  readonly path: Path;
  readonly query: Query;
  /** `z.undefined()` where it takes none. */
  readonly body: Body;
  readonly answer: Answer;
  /** Statuses of a good answer and when each comes. */
  readonly statuses: Readonly<Record<number, string>>;
  /** What may be wrong, beside what can be wrong with any request. */
  readonly problems: readonly ProblemKind[];
  readonly topics: readonly Topic[];
  /** True if an answer carries an ETag, and one that is still the same is answered 304 without being worked out. */
  readonly isTagged: boolean;
  /** Largest body, MB. */
  readonly largestMb: number;
  /** True if the body is read and checked in a worker thread with its work: it may be large. */
  readonly isReadByWorker: boolean;
  /** Content types of a good answer that is a file; null for JSON. */
  readonly files: readonly string[] | null;
}

const NOTHING = z.object({});
const NO_BODY = z.undefined();

type Parts<Path, Query, Body, Answer, Method> = {
  readonly method: Method;
  readonly at: string;
  readonly needs: Need;
  readonly summary: string;
  readonly path?: Path;
  readonly query?: Query;
  readonly body?: Body;
  readonly answer: Answer;
  readonly statuses?: Readonly<Record<number, string>>;
  readonly problems?: readonly ProblemKind[];
  readonly topics?: readonly Topic[];
  readonly isTagged?: boolean;
  readonly largestMb?: number;
  readonly isReadByWorker?: boolean;
  readonly files?: readonly string[];
};

/** Describes an endpoint; what is left out is none, a good answer is 200, a body has at most 2 MB. */
export function endpoint<
  Answer extends z.ZodType,
  const Method extends 'get' | 'post' | 'put' | 'patch' | 'delete',
  Path extends z.ZodObject = typeof NOTHING,
  Query extends z.ZodObject = typeof NOTHING,
  Body extends z.ZodType = typeof NO_BODY,
>({
  path,
  query,
  body,
  statuses = { 200: 'Done' },
  problems = [],
  topics = [],
  isTagged = false,
  largestMb = 2,
  isReadByWorker = false,
  files,
  ...rest
}: Parts<Path, Query, Body, Answer, Method>): Endpoint<Path, Query, Body, Answer, Method> {
  return {
    ...rest,
    path: path ?? (NOTHING as unknown as Path),
    query: query ?? (NOTHING as unknown as Query),
    body: body ?? (NO_BODY as unknown as Body),
    statuses,
    problems,
    topics,
    isTagged,
    largestMb,
    isReadByWorker,
    files: files ?? null,
  };
}
