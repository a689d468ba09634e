import {
  type Answered,
  type Asked,
  addressOf,
  type Endpoint,
  FIRST_ENDPOINTS,
  PAGE_ROUTES,
  type PageEndpointName,
  type Problem,
  problemKind,
  type Session,
} from '@fettle/core';
import { keepSessionToken, sessionToken, TAB } from './credentials.js';

/** What is away: the server itself, its database, or the room on its disk. */
export type Away = 'server' | 'database' | 'disk';

/** Why something that was asked of the server was not done. */
export type AskFault =
  /** The server answered, with a problem: it will not do it as it is. */
  | { readonly kind: 'refused'; readonly problem: Problem & Readonly<Record<string, unknown>> }
  /** The server did not answer, or could not work: worth trying again. */
  | {
      readonly kind: 'unreachable';
      readonly message: string;
      readonly away: Away;
    }
  /** The server answered that it failed at this: trying once more is worth it, going on trying is not. */
  | { readonly kind: 'failed'; readonly message: string };

/** What came back. */
export type AskResult<Value> =
  | { readonly ok: true; readonly value: Value; readonly etag: string | null }
  /** The same as what the caller has. */
  | { readonly ok: true; readonly isUnchanged: true }
  | { readonly ok: false; readonly fault: AskFault };

/** After so long without an answer the server counts as not there, ms. */
const LONGEST_MS = 15_000;

/** Problem details as the server sends them, with what it adds; null for anything else. */
function problemIn(value: unknown): (Problem & Readonly<Record<string, unknown>>) | null {
  if (typeof value !== 'object' || value === null) return null;
  const { type, title, detail, status } = value as Record<string, unknown>;
  const isProblem = [type, title, detail].every((words) => typeof words === 'string') && typeof status === 'number';
  return isProblem ? (value as Problem & Record<string, unknown>) : null;
}

function unreachable(message: string, away: Away = 'server'): { ok: false; fault: AskFault } {
  return { ok: false, fault: { kind: 'unreachable', message, away } };
}

async function faultOf(response: Response): Promise<{ ok: false; fault: AskFault }> {
  const isTyped = response.headers.get('content-type')?.startsWith('application/problem+json') ?? false;
  const problem = isTyped ? problemIn(await response.json()) : null;
  if (!problem) return unreachable(`The server answered ${response.status}.`);
  const kind = problemKind(problem);
  if (kind === 'server-fault') {
    return { ok: false, fault: { kind: 'failed', message: `${problem.title}. ${problem.detail}` } };
  }
  if (response.status >= 500) {
    return unreachable(problem.detail, kind === 'not-ready' ? 'database' : kind === 'disk-full' ? 'disk' : 'server');
  }
  return { ok: false, fault: { kind: 'refused', problem } };
}

/** The session that an answer tells of; null for one that tells of none. */
export function sessionIn(value: unknown): Session | null {
  const holder = value as { session?: Session; token?: string } | null;
  if (typeof holder !== 'object' || holder === null) return null;
  return holder.session ?? (typeof holder.token === 'string' ? (holder as Session) : null);
}

/** True if the server answered that one has to sign in. */
export function isSignedOut(fault: AskFault): boolean {
  return fault.kind === 'refused' && problemKind(fault.problem) === 'not-signed-in';
}

/** True if the server answered that the owner has to type their password again. */
export function needsPassword(fault: AskFault): boolean {
  return fault.kind === 'refused' && problemKind(fault.problem) === 'password-needed';
}

/** What `early.js` asked for before the page was there, by address. Each is taken once: whatever is asked later is asked anew. */
function begunEarly(address: string): Promise<Response> | undefined {
  const { fettleEarly: early } = globalThis as { fettleEarly?: Map<string, Promise<Response>> };
  const begun = early?.get(address);
  early?.delete(address);
  return begun;
}

/** What reads an answer. The schemas of what the first page asks are here; the others are fetched by the first that needs one of them. */
async function answerOf(name: PageEndpointName): Promise<Endpoint['answer']> {
  if (PAGE_ROUTES[name].isFirst) {
    return FIRST_ENDPOINTS[name as keyof typeof FIRST_ENDPOINTS].answer;
  }
  const { PAGE_ENDPOINTS } = await import('./allSchemas.js');
  return PAGE_ENDPOINTS[name].answer;
}

/** Asks an endpoint by its description. @param etag of what the caller has */
export async function ask<Name extends PageEndpointName>(
  name: Name,
  asked: Asked<Name>,
  etag: string | null = null,
): Promise<AskResult<Answered<Name>>> {
  const endpoint = PAGE_ROUTES[name];
  const { body, ...names } = asked as { body?: unknown } & Record<string, unknown>;
  const isOf = (known: readonly string[] = []) =>
    Object.fromEntries(Object.entries(names).filter(([key]) => known.includes(key)));
  const reader = answerOf(name);
  // Who waits for it hears of what went wrong.
  reader.catch(() => undefined);
  let response: Response;
  try {
    const address = addressOf(endpoint, isOf(endpoint.path), isOf(endpoint.query));
    const begun = endpoint.method === 'get' && etag === null ? begunEarly(address) : undefined;
    const known = await begun?.catch(() => undefined);
    response =
      known ??
      (await fetch(address, {
        method: endpoint.method.toUpperCase(),
        headers: {
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(etag === null ? {} : { 'if-none-match': etag }),
          ...(endpoint.method === 'get' ? {} : { 'x-fettle-tab': TAB, 'x-fettle-token': sessionToken() }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(LONGEST_MS),
      }));
    if (response.status === 304) return { ok: true, isUnchanged: true };
    if (!response.ok) return await faultOf(response);
    const read = (await reader).safeParse(await response.json());
    if (!read.success) {
      return { ok: false, fault: { kind: 'failed', message: `The answer cannot be read: ${read.error.message}` } };
    }
    const value = read.data as Answered<Name>;
    const session = sessionIn(value);
    if (session && endpoint.topics?.includes('session')) keepSessionToken(session.token);
    return { ok: true, value, etag: response.headers.get('etag') };
  } catch (error) {
    return unreachable(`The server cannot be reached (${(error as Error).message}).`);
  }
}

/** What kept something from working, for the person who asked for it. */
export function faultInWords(fault: AskFault): string {
  if (fault.kind === 'refused') return fault.problem.detail;
  if (fault.kind === 'failed') return fault.message;
  if (fault.away === 'disk') return fault.message;
  return 'Server not reached. Nothing was changed. Try again shortly.';
}

/** True if what was thrown is a fault of asking. */
export function isAskFault(error: unknown): error is AskFault {
  return typeof error === 'object' && error !== null && 'kind' in error && !(error instanceof Error);
}

/** What kept something from working, whatever was thrown. */
export function refusalInWords(error: unknown): string {
  if (isAskFault(error)) return faultInWords(error);
  return error instanceof Error ? error.message : String(error);
}
