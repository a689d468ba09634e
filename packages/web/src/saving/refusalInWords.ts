import { RefusedError } from './api.js';

/** What kept something from working, for the person who asked for it. */
export function refusalInWords(error: unknown): string {
  if (error instanceof RefusedError) return error.problem.detail;
  return 'The server cannot be reached. Nothing was changed; try again shortly.';
}
