import type { z } from 'zod';

/** One thing wrong with a document, and where. */
export interface DocumentFault {
  /** JSON Pointer (RFC 6901) of the value at fault; empty for the whole document. */
  readonly path: string;
  readonly message: string;
}

/** Maximum faults listed; bounds the response. */
const MOST_FAULTS = 200;

/** The faults of a failed Zod parse, each with the JSON Pointer (RFC 6901) of its value; from the 201st on they are counted. */
export function faultsOf(error: z.ZodError): DocumentFault[] {
  const faults = error.issues.slice(0, MOST_FAULTS).map((issue) => ({
    path: issue.path.map((part) => `/${String(part).replaceAll('~', '~0').replaceAll('/', '~1')}`).join(''),
    message: issue.message,
  }));
  const left = error.issues.length - faults.length;
  return left > 0 ? [...faults, { path: '', message: `and ${left} more errors` }] : faults;
}
