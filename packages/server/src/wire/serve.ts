import { type Answered, ENDPOINTS, type EndpointName, endpointOf, type QueryName, type Read } from '@fettle/core';
import express, { type Request, type Response, Router } from 'express';
import { ProblemError } from '../problem/problem.js';
import { readWith } from '../problem/readWith.js';

/** What a handler knows beside what was asked. */
export interface Asking {
  /** Aborted when the caller hangs up. */
  readonly gone: AbortSignal;
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

/** Answers an endpoint; what it was asked with has been read and checked. */
export type Handler<Name extends EndpointName> = (
  read: Read<Name>,
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
): Router {
  const routes = Router();
  for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
    const endpoint = endpointOf(name);
    const handler = handlers[name] as unknown as AnyHandler;
    const tag = name in tags ? (tags[name as QueryName] as (read: unknown) => Promise<string | number>) : mark;
    const hasBody = !endpoint.body.safeParse(undefined).success;
    const readers = hasBody ? [express.json({ limit: `${endpoint.largestMb}mb` })] : [];
    routes[endpoint.method](
      endpoint.at.replaceAll(/\{(\w+)\}/gu, ':$1'),
      ...readers,
      async (request: Request, response: Response) => {
        if (hasBody && request.body === undefined) {
          throw new ProblemError('not-json', 'Send a JSON body with content type application/json.');
        }
        const read = {
          path: readWith(endpoint.path, request.params),
          query: readWith(endpoint.query, request.query),
          body: hasBody ? readWith(endpoint.body, request.body) : undefined,
        };
        if (endpoint.isTagged && tagged(`"${boot}-${await tag(read)}"`, request, response)) return;
        const gone = new AbortController();
        response.on('close', () => gone.abort());
        const answer: unknown = await handler(read as never, { gone: gone.signal });
        if (answer instanceof Reply && Buffer.isBuffer(answer.value)) {
          response.status(answer.status).set(answer.headers).send(answer.value);
        } else if (answer instanceof Reply) response.status(answer.status).set(answer.headers).json(answer.value);
        else response.json(answer);
      },
    );
  }
  return routes;
}
