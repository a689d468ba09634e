import { type Answered, type Asked, type JobView, PAGE_ROUTES, type PageEndpointName } from '@fettle/core';
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { type RootState, store } from '../base/store.js';
import { api, engineTold } from './api.js';
import { ask } from './ask.js';

const UNTAGGED = 'an answer that was asked for without a tag cannot be the same as before';

type Initiate = (
  asked: unknown,
  options: object,
) => ThunkAction<{ unwrap(): Promise<unknown> }, RootState, unknown, UnknownAction>;

/** Endpoints whose answers the cache holds; an engine is asked for by `tellEngine`. */
type Told = Exclude<PageEndpointName, 'getJob'>;

/**
 * Looks an engine up once; whoever holds engines is told as well.
 *
 * @throws an `AskFault`
 */
export async function tellEngine(id: string): Promise<JobView> {
  const result = await ask('getJob', { id });
  if (!result.ok) throw result.fault;
  if ('isUnchanged' in result) throw new Error(UNTAGGED);
  store.dispatch(engineTold(result.value));
  return result.value;
}

/**
 * Asks an endpoint outside a view: something is done, or looked up once.
 *
 * @throws an `AskFault`
 */
export async function tell<Name extends Told>(name: Name, asked: Asked<Name>): Promise<Answered<Name>> {
  const { initiate } = api.endpoints[name] as unknown as { initiate: Initiate };
  const once = { forceRefetch: true, subscribe: false, track: false };
  const answered = (await store.dispatch(initiate(asked, once)).unwrap()) as Answered<Name> | undefined;
  if (answered !== undefined || PAGE_ROUTES[name].method !== 'get') return answered as Answered<Name>;
  // What nobody looks at is dropped from the cache when something changes before the answer is here: it is asked once more, past the cache.
  const result = await ask(name, asked);
  if (!result.ok) throw result.fault;
  if ('isUnchanged' in result) throw new Error(UNTAGGED);
  return result.value;
}
