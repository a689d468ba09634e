import { faultsOf, storageFaults } from '@fettle/core';
import type { z } from 'zod';
import { invalidRequest } from './problem.js';

/** Reads a value with its schema, once it can be stored at all. @throws ProblemError naming the path of every fault */
export function readWith<Schema extends z.ZodType>(schema: Schema, value: unknown): z.output<Schema> {
  const unstorable = storageFaults(value);
  if (unstorable.length > 0) throw invalidRequest(unstorable);
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw invalidRequest(faultsOf(parsed.error));
  return parsed.data;
}
