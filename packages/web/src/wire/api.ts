import {
  type Answered,
  type Asked,
  addressOf,
  PAGE_ENDPOINTS,
  type PageEndpointName,
  pageEndpointOf,
  type QueryName,
  type Topic,
} from '@fettle/core';
import {
  type BaseQueryFn,
  createApi,
  type EndpointBuilder,
  type MutationDefinition,
  type QueryDefinition,
} from '@reduxjs/toolkit/query/react';
import { type AskFault, ask } from './ask.js';

export interface Question {
  readonly name: PageEndpointName;
  readonly asked: Record<string, unknown>;
}

/** What is told about an answer beside it. */
export interface AnswerMeta {
  /** Whether the server said that it is the same as before. */
  readonly isUnchanged: boolean;
}

type Base = BaseQueryFn<Question, unknown, AskFault, object, AnswerMeta>;

/** Answers with their tags, by address; the ones asked for last are kept. */
const KEPT_ANSWERS = 60;
const kept = new Map<string, { etag: string; value: unknown }>();

const baseQuery: Base = async ({ name, asked }) => {
  const endpoint = pageEndpointOf(name);
  const address = addressOf(endpoint, asked, endpoint.method === 'get' ? asked : {});
  const known = endpoint.isTagged ? kept.get(address) : undefined;
  const result = await ask(name, asked as never, known?.etag ?? null);
  if (!result.ok) return { error: result.fault };
  if ('isUnchanged' in result) return { data: known!.value, meta: { isUnchanged: true } };
  if (endpoint.isTagged && result.etag !== null) {
    kept.delete(address);
    kept.set(address, { etag: result.etag, value: result.value });
    if (kept.size > KEPT_ANSWERS) kept.delete(kept.keys().next().value!);
  }
  return { data: result.value, meta: { isUnchanged: false } };
};

type Definitions = {
  [Name in PageEndpointName]: Name extends QueryName
    ? QueryDefinition<Asked<Name>, Base, Topic, Answered<Name>, 'api'>
    : MutationDefinition<Asked<Name>, Base, Topic, Answered<Name>, 'api'>;
};

/** One query or mutation an endpoint: what it reads is read anew once something has changed it. */
function definitions(build: EndpointBuilder<Base, Topic, 'api'>): Definitions {
  return Object.fromEntries(
    (Object.keys(PAGE_ENDPOINTS) as PageEndpointName[]).map((name) => {
      const { method, topics } = pageEndpointOf(name);
      const query = (asked: unknown): Question => ({ name, asked: (asked ?? {}) as Record<string, unknown> });
      return [
        name,
        method === 'get'
          ? build.query({ query, providesTags: [...topics] })
          : build.mutation({ query, invalidatesTags: (_, error) => (error ? [] : [...topics]) }),
      ];
    }),
  ) as unknown as Definitions;
}

const TOPICS = [
  'benches',
  'engine',
  'history',
  'drawer',
  'movements',
  'kits',
  'types',
  'sheets',
] as const satisfies readonly Topic[];

/** Everything that is fetched, made from the endpoints' descriptions: kept, polled, tagged and read anew in one place. */
export const api = createApi({ reducerPath: 'api', baseQuery, tagTypes: TOPICS, endpoints: definitions });
