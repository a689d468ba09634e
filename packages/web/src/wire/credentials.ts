import { newId } from '../base/newId.js';

/** This page, for the others to tell it from theirs. */
export const TAB = newId();

let token = '';

/** What goes along with every change, so that the server knows that it comes from this session. */
export function sessionToken(): string {
  return token;
}

/** Keeps the token of a session that began. */
export function keepSessionToken(next: string): void {
  token = next;
}
