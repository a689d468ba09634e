import { type DocumentFault, faultsOf, storageFaults } from '@fettle/core';
import type { z } from 'zod';
import { invalidRequest, ProblemError } from '../problem/problem.js';

/** Why a body could not be read. A class of error does not pass between threads: what is wrong is told as data. */
export type Unread =
  | { readonly kind: 'not-json'; readonly message: string }
  | { readonly kind: 'faults'; readonly faults: readonly DocumentFault[] };

/** What was read, or why it could not be. */
export type ParsedBody<Value> = { readonly kind: 'read'; readonly value: Value } | Unread;

/** Reads a body as it came: JSON in UTF-8 that can be stored and satisfies its schema. */
export function readBytes<Schema extends z.ZodType>(
  body: Uint8Array,
  schema: Schema,
  asSent: (value: unknown) => unknown = (value) => value,
): ParsedBody<z.output<Schema>> {
  let value: unknown;
  try {
    value = asSent(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body)));
  } catch (error) {
    return { kind: 'not-json', message: (error as Error).message };
  }
  const unstorable = storageFaults(value);
  if (unstorable.length > 0) return { kind: 'faults', faults: unstorable };
  const read = schema.safeParse(value);
  return read.success ? { kind: 'read', value: read.data } : { kind: 'faults', faults: faultsOf(read.error) };
}

/** What is answered where a body could not be read. */
export function unreadProblem(unread: Unread): ProblemError {
  if (unread.kind === 'faults') return invalidRequest(unread.faults);
  return new ProblemError('not-json', `The body cannot be read as JSON: ${unread.message}`);
}
