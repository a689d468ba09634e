import type { DocumentFault } from './fault.js';

/** Documents are nested less deep than this by far. */
const DEEPEST = 64;
/** So many faults are enough to put it right. */
const MOST_FAULTS = 20;

/** Half of a character on its own: two halves that belong together are one sign under `u`. */
const HALF = /\p{Cs}/u;

/** What keeps a text from being stored, in words; null when nothing does. */
function faultOfText(text: string): string | null {
  if (text.includes('\u0000')) return 'there is a NUL sign (U+0000) in this text; type it again without';
  if (HALF.test(text)) return 'this text holds half of a character; type its last sign again';
  return null;
}

/**
 * What keeps a JSON value from being stored: text with a NUL, which PostgreSQL cannot hold, text that was cut in the middle of a
 * character (a lone surrogate), names of members like that, and values nested more than 64 deep.
 *
 * @returns faults with JSON Pointers (RFC 6901), at most 20; empty when it can be stored
 */
export function storageFaults(value: unknown): DocumentFault[] {
  const faults: DocumentFault[] = [];
  const open: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }];
  for (let next = open.pop(); next !== undefined && faults.length < MOST_FAULTS; next = open.pop()) {
    const { value: here, path, depth } = next;
    if (typeof here === 'string') {
      const message = faultOfText(here);
      if (message !== null) faults.push({ path, message });
    } else if (typeof here === 'object' && here !== null) {
      if (depth >= DEEPEST) {
        faults.push({ path, message: `values are nested more than ${DEEPEST} deep here` });
        continue;
      }
      for (const [key, inner] of Object.entries(here)) {
        const message = faultOfText(key);
        if (message !== null) faults.push({ path, message: `the name of a member: ${message}` });
        const pointer = `${path}/${key
          .replaceAll(/\p{Cs}/gu, '\ufffd')
          .replaceAll('~', '~0')
          .replaceAll('/', '~1')}`;
        open.push({ value: inner, path: pointer, depth: depth + 1 });
      }
    }
  }
  return faults;
}

/**
 * The beginning of a text, at most so many UTF-16 units, never ending in half of a character.
 *
 * @example cutText('Sedge 4 🛠', 9) // 'Sedge 4 '
 */
export function cutText(text: string, most: number): string {
  const cut = text.slice(0, most);
  return cut.length < text.length && /[\ud800-\udbff]$/u.test(cut) ? cut.slice(0, -1) : cut;
}
