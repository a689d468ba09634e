import type { z } from 'zod';

/** One thing wrong with a document, and where. */
export interface DocumentFault {
  /** JSON Pointer (RFC 6901) of the value at fault; empty for the whole document. */
  readonly path: string;
  readonly message: string;
}

/** The faults of a failed Zod parse, each with the JSON Pointer (RFC 6901) of its value. */
export function faultsOf(error: z.ZodError): DocumentFault[] {
  return error.issues.map((issue) => ({
    path: issue.path.map((part) => `/${String(part).replaceAll('~', '~0').replaceAll('/', '~1')}`).join(''),
    message: issue.message,
  }));
}
