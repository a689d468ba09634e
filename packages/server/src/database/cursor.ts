import { momentSchema } from '@fettle/core';
import { invalidRequest } from '../problem/problem.js';

/** Where a list that runs back in time goes on: the moment and the key of the last row that was sent. */
export interface Cursor {
  readonly at: Date;
  readonly key: string;
}

/** A cursor as it is sent. */
export function cursorText({ at, key }: Cursor): string {
  return `${at.toISOString()}~${key}`;
}

/** Reads a cursor that was sent. @throws ProblemError `invalid-request` for what is none */
export function readCursor(text: string | undefined): Cursor | null {
  if (text === undefined) return null;
  const [moment = '', key = ''] = text.split('~');
  if (!momentSchema.safeParse(moment).success || !/^[\w-]{1,60}$/u.test(key)) {
    throw invalidRequest([{ path: '/after', message: 'use the `goesOn` of the page before' }]);
  }
  return { at: new Date(moment), key };
}
