import type { DocumentFault } from '@fettle/core';

/**
 * Parses JSON and reads a document from it.
 *
 * @param read the core's reader of that document
 */
export function readInput<Read>(
  text: string,
  read: (json: unknown) => Read,
): Read | { ok: false; faults: readonly DocumentFault[] } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return { ok: false, faults: [{ path: '', message: `not JSON: ${(error as Error).message}` }] };
  }
  return read(json);
}

/** A fault as a line of standard error. */
export function faultLine({ path, message }: DocumentFault, what: string): string {
  return `${path || `(whole ${what})`}: ${message}\n`;
}
