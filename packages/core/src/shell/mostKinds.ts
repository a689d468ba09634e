import type { z } from 'zod';

/** An engine takes from so many kinds of halves, and of pieces, at most: a drawer of every maker's grades has some hundreds. */
const MOST_KINDS = 1500;

/** A record of kinds that is no longer than an engine needs. @param what what they are, for the words of the fault */
export function atMostKinds<Schema extends z.ZodRecord>(schema: Schema, what: string): Schema {
  return schema.refine((kinds) => Object.keys(kinds).length <= MOST_KINDS, `at most ${MOST_KINDS} kinds of ${what}`);
}
