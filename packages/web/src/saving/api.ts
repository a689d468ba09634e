import {
  type AcceptedChoice,
  type DrawerLine,
  type DrawerMove,
  type DrawerMovement,
  drawerLineSchema,
  drawerMovementSchema,
  type EngineType,
  type JobChange,
  type JobSummary,
  type JobView,
  jobChangeSchema,
  jobSummarySchema,
  jobViewSchema,
  type Kit,
  type KitView,
  kitViewSchema,
  type PatchStep,
  type Problem,
  problemSchema,
  type Reading,
  type ReadingDraft,
  readingSchema,
  type TypeRevision,
  type TypeSummary,
  type TypeView,
  typeRevisionSchema,
  typeSummarySchema,
  typeViewSchema,
} from '@fettle/core';
import { z } from 'zod';

/** The server answered, with a problem. */
export class RefusedError extends Error {
  readonly problem: Problem & Readonly<Record<string, unknown>>;
  constructor(problem: Problem & Record<string, unknown>) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** The server did not answer, or could not work: worth trying again. */
export class UnreachableError extends Error {
  /** Whether the server is there, but its database is not. */
  readonly isDatabase: boolean;

  constructor(message: string, isDatabase = false) {
    super(message);
    this.isDatabase = isDatabase;
  }
}

/** The server answered that it failed at this: trying once more is worth it, going on trying is not. */
export class FailedError extends Error {}

async function call(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(15_000),
    });
  } catch (error) {
    throw new UnreachableError(`The server cannot be reached (${(error as Error).message}).`);
  }
  if (response.ok || response.status === 304) return response;
  const isProblem = response.headers.get('content-type')?.startsWith('application/problem+json') ?? false;
  if (!isProblem) throw new UnreachableError(`The server answered ${response.status}.`);
  const problem = z.looseObject(problemSchema.shape).parse(await response.json());
  if (problem.type.endsWith('#server-fault')) throw new FailedError(`${problem.title}. ${problem.detail}`);
  if (response.status >= 500) throw new UnreachableError(problem.detail, problem.type.endsWith('#not-ready'));
  throw new RefusedError(problem);
}

/** The engines on the benches, or the deleted ones. */
export async function fetchJobs(deleted: boolean): Promise<JobSummary[]> {
  const response = await call('GET', `/api/jobs${deleted ? '?deleted=true' : ''}`);
  return z.array(jobSummarySchema).parse(await response.json());
}

/** One engine; null when it has not changed since `revision`. */
export async function fetchJob(id: string, revision: number | null): Promise<JobView | null> {
  const response = await call(
    'GET',
    `/api/jobs/${id}`,
    undefined,
    revision === null ? {} : { 'if-none-match': `"${revision}"` },
  );
  return response.status === 304 ? null : jobViewSchema.parse(await response.json());
}

export async function createJob(id: string, by: string, document: unknown): Promise<JobView> {
  const response = await call('POST', '/api/jobs', { id, by, document });
  return jobViewSchema.parse(await response.json());
}

export async function patchJob(id: string, version: number, by: string, steps: readonly PatchStep[]): Promise<JobView> {
  const response = await call('PATCH', `/api/jobs/${id}`, { version, by, steps });
  return jobViewSchema.parse(await response.json());
}

export async function putReading(jobId: string, id: string, draft: ReadingDraft): Promise<Reading> {
  const response = await call('PUT', `/api/jobs/${jobId}/readings/${id}`, draft);
  return readingSchema.parse(await response.json());
}

export async function deleteJob(id: string, version: number, by: string): Promise<void> {
  await call('DELETE', `/api/jobs/${id}?version=${version}&by=${encodeURIComponent(by)}`);
}

export async function restoreJob(id: string, version: number, by: string): Promise<void> {
  await call('POST', `/api/jobs/${id}/restore`, { version, by });
}

export async function fetchHistory(id: string): Promise<JobChange[]> {
  const response = await call('GET', `/api/jobs/${id}/history`);
  return z.array(jobChangeSchema).parse(await response.json());
}

/** The workshop's halves, and which engine has reserved or used how many. */
export async function fetchDrawer(): Promise<DrawerLine[]> {
  const response = await call('GET', '/api/drawer');
  return z.array(drawerLineSchema).parse(await response.json());
}

/** Does something to the workshop's drawer, all of it or nothing. */
export async function moveDrawer(move: DrawerMove): Promise<void> {
  await call('POST', '/api/drawer/move', move);
}

/** What was done to the drawer, the last first. */
export async function fetchMovements(): Promise<DrawerMovement[]> {
  const response = await call('GET', '/api/drawer/history');
  return z.array(drawerMovementSchema).parse(await response.json());
}

/** Takes something back that was done to the drawer. */
export async function undoMovement(id: string, by: string): Promise<void> {
  await call('POST', `/api/drawer/undo/${id}`, { by });
}

export async function fetchKits(): Promise<KitView[]> {
  const response = await call('GET', '/api/drawer/kits');
  return z.array(kitViewSchema).parse(await response.json());
}

/** Keeps a kit: a new one with version 0. */
export async function putKit(id: string, version: number, by: string, kit: Kit): Promise<void> {
  await call('PUT', `/api/drawer/kits/${id}`, { version, by, kit });
}

export async function deleteKit(id: string, version: number, by: string): Promise<void> {
  await call('DELETE', `/api/drawer/kits/${id}?version=${version}&by=${encodeURIComponent(by)}`);
}

/** The engine types whose sheets hold the words; all of them without any. */
export async function fetchTypes(words: string, archived: boolean): Promise<TypeSummary[]> {
  const response = await call('GET', `/api/types?archived=${archived}&words=${encodeURIComponent(words)}`);
  return z.array(typeSummarySchema).parse(await response.json());
}

export async function fetchType(id: string): Promise<TypeView> {
  const response = await call('GET', `/api/types/${id}`);
  return typeViewSchema.parse(await response.json());
}

/** Every revision of an engine type, the last first. */
export async function fetchRevisions(id: string): Promise<TypeRevision[]> {
  const response = await call('GET', `/api/types/${id}/revisions`);
  return z.array(typeRevisionSchema).parse(await response.json());
}

/** Keeps the next revision of an engine type: a new type from revision 0. */
export async function putType(id: string, revision: number, by: string, type: EngineType): Promise<TypeView> {
  const response = await call('PUT', `/api/types/${id}`, { revision, by, type });
  return typeViewSchema.parse(await response.json());
}

export async function archiveType(id: string, by: string, archived: boolean): Promise<void> {
  await call('POST', `/api/types/${id}/archive`, { by, archived });
}

/** Accepts the choices of several engines, all or none. */
export async function acceptTogether(
  by: string,
  jobs: readonly { id: string; version: number; choice: AcceptedChoice }[],
): Promise<JobView[]> {
  const response = await call('POST', '/api/drawer/accept', { by, jobs });
  return z.array(jobViewSchema).parse(await response.json());
}

/** Marks the halves that an engine has reserved as fitted, or takes that back. */
export async function setFitted(id: string, by: string, fitted: boolean): Promise<void> {
  await call('POST', `/api/drawer/fitted/${id}`, { by, fitted });
}
