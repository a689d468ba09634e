import {
  type Answered,
  ENDPOINTS,
  type EndpointName,
  endpointOf,
  type QueryName,
  type Read,
  type Topic,
} from '@fettle/core';
import express, { type Request, type RequestHandler, type Response, Router } from 'express';
import { type Access, accessOf } from '../access/Access.js';
import { actingAs } from '../access/acting.js';
import type { LiveHub } from '../live/LiveHub.js';
import { ProblemError } from '../problem/problem.js';
import { readWith } from '../problem/readWith.js';

/** What a handler knows beside what was asked. */
export interface Asking {
  /** Aborted when the caller hangs up. */
  readonly gone: AbortSignal;
  /** Who asks. */
  readonly access: Access;
  /** Whom work is shared out by: the account, else the address. */
  readonly client: string;
}

/** An answer with a status of its own, or headers. */
export class Reply<Value> {
  readonly status: number;
  readonly value: Value;
  readonly headers: Readonly<Record<string, string>>;

  constructor(status: number, value: Value, headers: Readonly<Record<string, string>> = {}) {
    this.status = status;
    this.value = value;
    this.headers = headers;
  }
}

/** What an endpoint was asked with; the body as it came where a worker reads it. */
type Handed<Name extends EndpointName> = Name extends 'fit' | 'shims'
  ? Omit<Read<Name>, 'body'> & { readonly body: Buffer }
  : Read<Name>;

/** Answers an endpoint; what it was asked with has been read and checked. */
export type Handler<Name extends EndpointName> = (
  read: Handed<Name>,
  asking: Asking,
) => Promise<Answered<Name> | Reply<Answered<Name>>>;

/** A handler for each of some endpoints. */
export type HandlersOf<Names extends EndpointName> = { readonly [Name in Names]: Handler<Name> };

/** What tells whether an answer is still the same, for the endpoints that have something better than the mark of the whole database. */
export type Tags = { readonly [Name in QueryName]?: (read: Read<Name>) => Promise<string | number> };

type AnyHandler = Handler<EndpointName>;

function tagged(etag: string, request: Request, response: Response): boolean {
  response.set('etag', etag);
  if (request.get('if-none-match') !== etag) return false;
  response.status(304).end();
  return true;
}

/** Whether a description asks who it is that does something. */
function asksWho(schema: unknown): boolean {
  const { shape } = schema as { shape?: Record<string, unknown> };
  return shape !== undefined && 'by' in shape;
}

/** What was asked, by the name of the account: what the asker calls themselves does not count. */
function byAccount(asked: unknown, name: string | null): unknown {
  return name === null || typeof asked !== 'object' || asked === null || Array.isArray(asked)
    ? asked
    : { ...asked, by: name };
}

/** An id that a page sends along, so that it is not told what it did itself. */
const TAB = /^[\w-]{8,40}$/u;

/** The topics that a change of an engine touches beside those of its endpoint: pages keep the engine they work on by themselves. */
function touched(name: EndpointName): readonly Topic[] {
  const { topics, at } = endpointOf(name);
  return at.startsWith('/api/jobs') && !topics.includes('engine') ? [...topics, 'engine'] : topics;
}

/** Which engine a change was of; null for something else. */
function engineOf(name: EndpointName, path: unknown, body: unknown): string | null {
  if (name === 'createJob') return (body as { id: string }).id;
  const isOfEngine = endpointOf(name).at.startsWith('/api/jobs/') || name === 'setFitted';
  return isOfEngine ? (path as { id: string }).id : null;
}

/**
 * Routes for all endpoints: each reads its path, query and body with its own description, hands them to its handler and sends what
 * comes back. An endpoint that is tagged answers 304 where its tag is what the caller has.
 *
 * @param mark changes whenever anything in the database has
 * @param boot told apart from what an earlier start has answered, whose answers may look otherwise
 */
export function serve(
  handlers: HandlersOf<EndpointName>,
  tags: Tags,
  mark: () => Promise<string>,
  boot: string,
  live: LiveHub,
): Router {
  const routes = Router();
  for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
    const endpoint = endpointOf(name);
    const handler = handlers[name] as unknown as AnyHandler;
    const tag = name in tags ? (tags[name as QueryName] as (read: unknown) => Promise<string | number>) : mark;
    const hasBody = !endpoint.body.safeParse(undefined).success;
    const limit = `${endpoint.largestMb}mb`;
    const { isReadByWorker } = endpoint;
    const readers = !hasBody
      ? []
      : [isReadByWorker ? express.raw({ limit, type: 'application/json' }) : express.json({ limit })];
    // What a worker reads it checks as well.
    const bodyOf = (body: unknown, who: string | null) =>
      isReadByWorker ? body : readWith(endpoint.body, byAccount(body, who));
    const [bodyAsksWho, queryAsksWho] = [asksWho(endpoint.body), asksWho(endpoint.query)];
    // Whether they may is asked before anything of theirs is read.
    const allowed: RequestHandler = (_request, response, next) => {
      accessOf(response).check(name);
      next();
    };
    routes[endpoint.method](
      endpoint.at.replaceAll(/\{(\w+)\}/gu, ':$1'),
      allowed,
      ...readers,
      async (request: Request, response: Response) => {
        if (hasBody && (request.body === undefined || (isReadByWorker && !Buffer.isBuffer(request.body)))) {
          throw new ProblemError('not-json', 'Send a JSON body with content type application/json.');
        }
        const access = accessOf(response);
        const who = access.person?.name ?? null;
        const read = {
          path: readWith(endpoint.path, request.params),
          query: readWith(endpoint.query, queryAsksWho ? byAccount(request.query, who) : request.query),
          body: hasBody ? bodyOf(request.body, bodyAsksWho ? who : null) : undefined,
        };
        if (endpoint.isTagged && tagged(`"${boot}-${await tag(read)}"`, request, response)) return;
        const gone = new AbortController();
        response.on('close', () => response.writableFinished || gone.abort());
        const client = access.person?.id ?? request.ip ?? '';
        const acting = { person: who, device: access.device?.id ?? null };
        const answer: unknown = await actingAs(acting, () =>
          handler(read as never, { gone: gone.signal, access, client }),
        );
        if (endpoint.method !== 'get') {
          const tab = request.get('x-fettle-tab') ?? '';
          live.changed(touched(name), engineOf(name, read.path, read.body), TAB.test(tab) ? tab : null);
        }
        if (answer instanceof Reply && Buffer.isBuffer(answer.value)) {
          response.status(answer.status).set(answer.headers).send(answer.value);
        } else if (answer instanceof Reply) response.status(answer.status).set(answer.headers).json(answer.value);
        else response.json(answer);
      },
    );
  }
  return routes;
}
