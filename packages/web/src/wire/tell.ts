import type { Answered, Asked, PageEndpointName } from '@fettle/core';
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { type RootState, store } from '../app/store.js';
import { api } from './api.js';

type Initiate = (
  asked: unknown,
  options: object,
) => ThunkAction<{ unwrap(): Promise<unknown> }, RootState, unknown, UnknownAction>;

/**
 * Asks an endpoint outside a view: something is done, or looked up once.
 *
 * @throws an `AskFault`
 */
export async function tell<Name extends PageEndpointName>(name: Name, asked: Asked<Name>): Promise<Answered<Name>> {
  const { initiate } = api.endpoints[name] as unknown as { initiate: Initiate };
  const once = { forceRefetch: true, subscribe: false, track: false };
  return (await store.dispatch(initiate(asked, once)).unwrap()) as Answered<Name>;
}
