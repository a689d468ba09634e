import { isLengthAt } from '../document/isLengthAt.js';
import { PART_MEMBERS } from './jobParts.js';

/**
 * True if a place of the job document holds a length, which its schema says: its number is then whole nanometres.
 *
 * @param keys from the document down, as `keysOfPointer` reads them from a JSON Pointer
 * @example isLengthPlace(['limits', 'endPlay', 'low']) // true
 */
export function isLengthPlace([member = '', ...keys]: readonly string[]): boolean {
  const members = new Map(Object.entries(PART_MEMBERS));
  const schema = members.get(member);
  return schema !== undefined && isLengthAt(schema, keys);
}
