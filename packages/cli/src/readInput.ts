import type { DocumentFault } from '@fettle/core';

/** Position of the first byte that is not UTF-8, from 0; null: all of it is. */
function firstWrongByte(bytes: Uint8Array): number | null {
  const isText = (length: number) => {
    try {
      // As a stream: a character that is cut off at the end is not wrong yet.
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(0, length), { stream: true });
      return true;
    } catch {
      return false;
    }
  };
  if (isText(bytes.length)) {
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes);
      return null;
    } catch {
      return bytes.length - 1;
    }
  }
  let [good, wrong] = [0, bytes.length];
  while (wrong - good > 1) {
    const middle = (good + wrong) >> 1;
    if (isText(middle)) good = middle;
    else wrong = middle;
  }
  return good;
}

/** Bytes as text; what is not UTF-8 is refused with its place. A byte order mark at the start is left out. */
export function textOfBytes(
  bytes: Uint8Array,
): { readonly ok: true; readonly text: string } | { readonly ok: false; readonly faults: readonly DocumentFault[] } {
  const at = firstWrongByte(bytes);
  if (at === null) return { ok: true, text: new TextDecoder().decode(bytes) };
  const before = bytes.subarray(0, at);
  const line = before.reduce((count, byte) => count + (byte === 0x0a ? 1 : 0), 1);
  const message = `not UTF-8 at byte ${at + 1}, line ${line}; save the file as UTF-8`;
  return { ok: false, faults: [{ path: '', message }] };
}

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
