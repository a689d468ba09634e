import type { Server } from 'node:http';

/** Headers are here within so long, and a whole request, ms: who sends slowly holds nothing up. */
const HEADERS_MS = 10_000;
const REQUEST_MS = 30_000;
/** How long a connection waits for the next request, ms. */
const IDLE_MS = 15_000;
/** Connections at once. */
const MOST = 1000;

/** How often it is looked whether a request takes too long, ms; set where a server is made. */
export const LOOK_EVERY = { connectionsCheckingInterval: 5000 } as const;

/** Gives a server its bounds: no request takes without end to arrive, and no more come at once than it can hold. */
export function bounded(server: Server, requestMs = REQUEST_MS): Server {
  server.headersTimeout = Math.min(HEADERS_MS, requestMs);
  server.requestTimeout = requestMs;
  server.keepAliveTimeout = IDLE_MS;
  server.maxConnections = MOST;
  return server;
}
