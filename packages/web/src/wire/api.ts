import {
  type Answered,
  type Asked,
  addressOf,
  type JobView,
  type Moved,
  PAGE_ROUTES,
  type PageEndpointName,
  type QueryName,
  TOPICS,
  type Topic,
} from '@fettle/core';
import { createAction, type UnknownAction } from '@reduxjs/toolkit';
import {
  type BaseQueryFn,
  createApi,
  type EndpointBuilder,
  type MutationDefinition,
  type QueryDefinition,
} from '@reduxjs/toolkit/query/react';
import { passwordNeeded, sessionEnded, sessionTold } from '../person/accessSlice.js';
import { type AskFault, type Away, ask, isSignedOut, needsPassword, sessionIn } from './ask.js';
import { inPauses } from './inPauses.js';
import { forgetAnswers, keepAnswer, keptAnswer } from './keptAnswers.js';

export interface Question {
  readonly name: PageEndpointName;
  readonly asked: Record<string, unknown>;
}

/** What is told about an answer beside it. */
export interface AnswerMeta {
  /** True if the server said that it is the same as before. */
  readonly isUnchanged: boolean;
  /** True if the server is away, and this is what it said when it was here last. */
  readonly isKept: boolean;
}

/** The server, or its database, does not answer, or has no room. */
export const serverAway = createAction<Away>('api/serverAway');

/** An engine, as the server tells it or told it last. It is held by what lays unsent changes over it, and nowhere else in the page. */
export const engineTold = createAction<JobView>('api/engineTold');

/** What is kept of an answer here, in place of an engine. */
export interface EngineSeen {
  readonly revision: number;
}

/** Lines of the drawer were changed from here. */
export const drawerMoved = createAction<Moved>('api/drawerMoved');

type Base = BaseQueryFn<Question, unknown, AskFault, object, AnswerMeta>;

/** Answers with their tags, by address; the ones asked for last are kept. */
const KEPT_ANSWERS = 60;
const kept = new Map<string, { etag: string; value: unknown }>();
/** How often the drawer was changed from here. */
let moves = 0;

/** What is answered so is wrong, or not there: nobody was signed out by it. */
const TRIES_SECRETS: ReadonlySet<PageEndpointName> = new Set([
  'signIn',
  'makeOwner',
  'letIn',
  'changePassword',
  'setPin',
  'confirmPassword',
]);

const baseQuery: Base = async ({ name, asked }, { dispatch }) => {
  const endpoint = PAGE_ROUTES[name];
  const address = addressOf(endpoint, asked, endpoint.method === 'get' ? asked : {});
  const known = endpoint.isTagged ? kept.get(address) : undefined;
  const before = moves;
  let result = await ask(name, asked as never, known?.etag ?? null);
  // What was on its way while the drawer was changed from here may be from before: it is asked for again.
  if (moves !== before && endpoint.method === 'get' && endpoint.topics?.includes('drawer')) {
    result = await ask(name, asked as never, known?.etag ?? null);
  }
  if (!result.ok) {
    if (needsPassword(result.fault)) dispatch(passwordNeeded());
    if (isSignedOut(result.fault) && !TRIES_SECRETS.has(name)) dispatch(sessionEnded());
    if (result.fault.kind === 'unreachable' && endpoint.isTagged) {
      const last = known?.value ?? (await keptAnswer(address).catch(() => undefined));
      if (last !== undefined) {
        dispatch(serverAway(result.fault.away));
        const data = known === undefined ? held(name, last, dispatch) : last;
        return { data, meta: { isUnchanged: known !== undefined, isKept: true } };
      }
    }
    return { error: result.fault };
  }
  if ('isUnchanged' in result) return { data: known!.value, meta: { isUnchanged: true, isKept: false } };
  const data = held(name, result.value, dispatch);
  if (endpoint.isTagged && result.etag !== null) {
    kept.delete(address);
    kept.set(address, { etag: result.etag, value: data });
    if (kept.size > KEPT_ANSWERS) kept.delete(kept.keys().next().value!);
    // An engine is kept as it is known here, with what was sent since: `keepEngines` does that.
    if (name !== 'getJob') inPauses(address, () => keepAnswer(address, result.value));
  }
  if (TELLS_DRAWER.has(name)) {
    moves += 1;
    dispatch(drawerMoved(result.value as Moved));
  }
  const session = endpoint.topics?.includes('session') ? sessionIn(result.value) : null;
  if (session) dispatch(sessionTold(session));
  return { data, meta: { isUnchanged: false, isKept: false } };
};

/** What the cache holds of an answer: all of it, but of an engine only that it was told. */
function held(name: PageEndpointName, value: unknown, dispatch: (action: UnknownAction) => void): unknown {
  if (name !== 'getJob') return value;
  const engine = value as JobView;
  dispatch(engineTold(engine));
  return { revision: engine.revision } satisfies EngineSeen;
}

/** What these change of the drawer is in their answer: it is laid into the lists that are here, and those are not read anew. */
const TELLS_DRAWER: ReadonlySet<PageEndpointName> = new Set(['moveDrawer', 'undoMovement']);

type Definitions = {
  [Name in PageEndpointName]: Name extends QueryName
    ? QueryDefinition<Asked<Name>, Base, Topic, Name extends 'getJob' ? EngineSeen : Answered<Name>, 'api'>
    : MutationDefinition<Asked<Name>, Base, Topic, Answered<Name>, 'api'>;
};

/** Forgets what was answered, on this device too. */
export async function forgetAnswered(): Promise<void> {
  kept.clear();
  await forgetAnswers();
}

/** One query or mutation an endpoint: what it reads is read anew once something has changed it. */
function definitions(build: EndpointBuilder<Base, Topic, 'api'>): Definitions {
  return Object.fromEntries(
    (Object.keys(PAGE_ROUTES) as PageEndpointName[]).map((name) => {
      const { method, topics = [] } = PAGE_ROUTES[name];
      const query = (asked: unknown): Question => ({ name, asked: (asked ?? {}) as Record<string, unknown> });
      return [
        name,
        method === 'get'
          ? build.query({ query, providesTags: [...topics] })
          : build.mutation({
              query,
              invalidatesTags: (_, error) =>
                error ? [] : topics.filter((topic) => topic !== 'drawer' || !TELLS_DRAWER.has(name)),
            }),
      ];
    }),
  ) as unknown as Definitions;
}

/** Everything that is fetched, made from the endpoints' descriptions: kept, polled, tagged and read anew in one place. */
export const api = createApi({ reducerPath: 'api', baseQuery, tagTypes: TOPICS, endpoints: definitions });

declare module '../base/store.js' {
  interface RootState {
    readonly api: ReturnType<typeof api.reducer>;
  }
}
