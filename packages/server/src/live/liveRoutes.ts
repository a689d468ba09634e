import { LIVE_AT, type LiveEvent, tabSchema } from '@fettle/core';
import { createSession } from 'better-sse';
import { type Request, type Response, Router } from 'express';
import { accessOf } from '../access/Access.js';
import { ProblemError } from '../problem/problem.js';
import { readWith } from '../problem/readWith.js';
import type { LiveHub } from './LiveHub.js';

/** Pages that listen at once, in all and from one address. */
const MOST = 500;
const MOST_FROM_ONE = 60;
/** After so long a page begins anew, and says again who it is, ms. */
const LONGEST_MS = 3_600_000;

/** The stream of what others change, as server-sent events. */
export function liveRoutes(hub: LiveHub): Router {
  const routes = Router();
  const open = new Map<string, number>();
  routes.get(LIVE_AT, async (request: Request, response: Response) => {
    const access = accessOf(response);
    if (access.isOn && (!access.person || access.person.mustChange)) {
      throw new ProblemError('not-signed-in', 'Sign in first.');
    }
    const tab = readWith(tabSchema, request.query.tab);
    const address = request.ip ?? '';
    const count = open.get(address) ?? 0;
    const all = [...open.values()].reduce((sum, one) => sum + one, 0);
    if (count >= MOST_FROM_ONE || all >= MOST) {
      throw new ProblemError('too-busy', 'Too many pages open: this one checks for changes now and then.');
    }
    open.set(address, count + 1);
    response.on('close', () => {
      const left = (open.get(address) ?? 1) - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
    });
    // What is written between the end and the close, to keep the connection open, reaches nobody.
    response.on('error', (error) => request.log.info({ err: error }, 'a page that listened is gone'));
    const session = await createSession(request, response, { keepAlive: 15_000, retry: 2000 });
    const isOver = () => response.writableEnded || response.closed || !session.isConnected;
    const end = () => {
      // From here on nothing is said to it: a stream that was ended takes no more.
      leave();
      if (!response.writableEnded) response.end();
    };
    const leave = hub.join({
      tab,
      who: access.listens,
      send: (event: LiveEvent) => {
        if (!isOver()) session.push(event, event.kind);
      },
      end,
    });
    const over = setTimeout(end, LONGEST_MS);
    const onClose = () => {
      clearTimeout(over);
      leave();
    };
    response.on('close', onClose);
    // What ended between being asked and beginning to listen was not heard, nor was a page that went away meanwhile.
    if (response.closed) onClose();
    else if (!(await access.isStillIn())) end();
  });
  return routes;
}
