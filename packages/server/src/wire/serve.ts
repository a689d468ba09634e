import {
  type Answered,
  ENDPOINTS,
  type Endpoint,
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
import type { BodyPool } from '../read/BodyPool.js';
import { byAccount } from '../read/byAccount.js';
import type { Asker } from '../worker/WorkerPool.js';
import { BodyRoom } from './BodyRoom.js';
import { Reply } from './Reply.js';
import { SharedReply } from './SharedReply.js';

/** What a handler knows beside what was asked. */
export interface Asking extends Asker {
  /** Who asks. */
  readonly access: Access;
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

/** True if a description asks who it is that does something. */
function asksWho(schema: unknown): boolean {
  const { shape } = schema as { shape?: Record<string, unknown> };
  return shape !== undefined && 'by' in shape;
}

/** A body of more bytes than this takes longer to check than a worker thread to be told of it. */
const LARGE = 64 * 1024;

/** Reads bodies of an endpoint: small ones as JSON, large ones (or of which that is not known beforehand) as they come. */
function bodyReader({ largestMb, isReadByWorker }: Endpoint): RequestHandler {
  const limit = `${largestMb}mb`;
  const asItComes = express.raw({ limit, type: 'application/json' });
  const asJson = express.json({ limit });
  const isSmall = (request: Request) =>
    request.get('content-encoding') === undefined && Number(request.get('content-length') ?? LARGE + 1) <= LARGE;
  return (request, response, next) =>
    !isReadByWorker && isSmall(request) ? asJson(request, response, next) : asItComes(request, response, next);
}

/** Room for large bodies, MB: what is made of one while it is read and answered takes several times as much. */
const ROOM_MB = 32;

/** Whom work and room are shared out by: the account, or the address where there is none. */
function clientOf(request: Request, response: Response): string {
  return accessOf(response).person?.id ?? request.ip ?? '';
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
  reads: BodyPool,
): Router {
  const routes = Router();
  const room = new BodyRoom(ROOM_MB);
  for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
    const endpoint = endpointOf(name);
    const handler = handlers[name] as unknown as AnyHandler;
    const tag = name in tags ? (tags[name as QueryName] as (read: unknown) => Promise<string | number>) : mark;
    const hasBody = !endpoint.body.safeParse(undefined).success;
    const { isReadByWorker } = endpoint;
    const gate = room.gate(endpoint.largestMb * 2 ** 20, clientOf);
    const readers = hasBody ? [gate, bodyReader(endpoint)] : [];
    const bodyOf = async (body: unknown, who: string | null, asker: Asker) => {
      // What its own worker reads it checks as well.
      if (isReadByWorker) return body;
      if (Buffer.isBuffer(body)) return reads.body({ endpoint: name, body, who }, asker);
      return readWith(endpoint.body, byAccount(body, who));
    };
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
        const gone = new AbortController();
        response.on('close', () => response.writableFinished || gone.abort());
        const asker = { gone: gone.signal, client: clientOf(request, response) };
        const read = {
          path: readWith(endpoint.path, request.params),
          query: readWith(endpoint.query, queryAsksWho ? byAccount(request.query, who) : request.query),
          body: hasBody ? await bodyOf(request.body, bodyAsksWho ? who : null, asker) : undefined,
        };
        if (endpoint.isTagged && tagged(`"${boot}-${await tag(read)}"`, request, response)) return;
        const acting = { person: who, device: access.device?.id ?? null };
        const answer: unknown = await actingAs(acting, () => handler(read as never, { ...asker, access }));
        if (endpoint.method !== 'get') {
          const tab = request.get('x-fettle-tab') ?? '';
          live.changed(touched(name), engineOf(name, read.path, read.body), TAB.test(tab) ? tab : null);
        }
        if (answer instanceof SharedReply) await answer.send(request, response);
        else if (answer instanceof Reply && Buffer.isBuffer(answer.value)) {
          response.status(answer.status).set(answer.headers).send(answer.value);
        } else if (answer instanceof Reply) response.status(answer.status).set(answer.headers).json(answer.value);
        else response.json(answer);
      },
    );
  }
  return routes;
}
