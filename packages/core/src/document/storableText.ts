import type { DocumentFault } from './fault.js';

/** Documents are nested less deep than this by far. */
const DEEPEST = 64;
/** Items of one list or record, and values in all, at most: several times what the largest engine or request has. */
const MOST_ITEMS = 20_000;
const MOST_VALUES = 200_000;
/** Maximum faults listed: enough to put it right. */
const MOST_FAULTS = 20;

/** No member of a document is called so: in JavaScript the name means something else. */
export const PROTOTYPE = '__proto__';

/** Half of a character on its own: two halves that belong together are one sign under `u`. */
const HALF = /\p{Cs}/u;

/** What keeps a text from being stored, in words; null when nothing does. */
function faultOfText(text: string): string | null {
  if (text.includes('\u0000')) return 'this text contains a NUL character (U+0000); retype it without';
  if (HALF.test(text)) return 'this text ends in half a character; retype the last one';
  return null;
}

/** A place in a value, by the way that leads there. */
interface Place {
  readonly value: unknown;
  readonly key: string;
  readonly above: Place | null;
  readonly depth: number;
}

/** JSON Pointer to a place; put together where one is asked for only. */
function pointerTo(place: Place): string {
  const keys: string[] = [];
  for (let at = place; at.above !== null; at = at.above) keys.unshift(at.key);
  return keys
    .map(
      (key) =>
        `/${key
          .replaceAll(/\p{Cs}/gu, '\ufffd')
          .replaceAll('~', '~0')
          .replaceAll('/', '~1')}`,
    )
    .join('');
}

/**
 * What keeps a JSON value from being stored: text with a NUL, which PostgreSQL cannot hold, text that was cut in the middle of a
 * character (a lone surrogate), names of members like that or `__proto__`, values nested more than 64 deep, and more of them than any
 * request has: what checks each of a million wrong ones would fill the machine.
 *
 * @returns faults with JSON Pointers (RFC 6901), at most 20; empty when it can be stored
 */
export function storageFaults(value: unknown): DocumentFault[] {
  const faults: DocumentFault[] = [];
  const open: Place[] = [{ value, key: '', above: null, depth: 0 }];
  let count = 0;
  for (let next = open.pop(); next !== undefined && faults.length < MOST_FAULTS; next = open.pop()) {
    const here = next.value;
    if (typeof here === 'string') {
      const message = faultOfText(here);
      if (message !== null) faults.push({ path: pointerTo(next), message });
    } else if (typeof here === 'object' && here !== null) {
      if (next.depth >= DEEPEST) {
        faults.push({ path: pointerTo(next), message: `values are nested more than ${DEEPEST} deep here` });
        continue;
      }
      const keys = Object.keys(here);
      count += keys.length;
      if (keys.length > MOST_ITEMS) {
        return [{ path: pointerTo(next), message: `there are more than ${MOST_ITEMS} items here` }];
      }
      if (count > MOST_VALUES) return [{ path: '', message: `there are more than ${MOST_VALUES} values in it` }];
      for (const key of keys) {
        const message = key === PROTOTYPE ? `it may not be ${PROTOTYPE}` : faultOfText(key);
        if (message !== null) faults.push({ path: pointerTo(next), message: `the name of a member: ${message}` });
        const inner = (here as Record<string, unknown>)[key];
        open.push({ value: inner, key, above: next, depth: next.depth + 1 });
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
