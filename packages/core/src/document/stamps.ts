import { canonicalJson } from './canonicalJson.js';
import type { Json } from './mergeThreeWays.js';

/** Who did something, and when, as it stands somewhere in a document: an object with the members `by` and `at`. */
export interface PersonStamp {
  /** The keys to the object; `null` for a position in a list, which does not count: lists are written whole. */
  readonly path: readonly (string | null)[];
  readonly by: string;
  /** As it is written, by rule an ISO moment. */
  readonly at: string;
  /** What was read, where a reading is stamped: with another figure it is another reading. Left out where none is. */
  readonly says?: string;
}

/** The members of a stamped thing that are what was read. */
const READ = ['text', 'unit', 'nm', 'diameter', 'widths', 'moment', 'angle'] as const;

function readIn(stamped: Readonly<Record<string, Json>>): { readonly says?: string } {
  const read = READ.flatMap((member) => (stamped[member] === undefined ? [] : [[member, stamped[member]]]));
  return read.length === 0 ? {} : { says: canonicalJson(Object.fromEntries(read)) };
}

/** The same document with the names in its stamps replaced by what a function makes of them. */
function withNames(value: Json, nameOf: (stamp: PersonStamp) => string, path: PersonStamp['path'] = []): Json {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map((item) => withNames(item, nameOf, [...path, null]));
  const { by, at } = value;
  const named =
    typeof by === 'string' && typeof at === 'string'
      ? { ...value, by: nameOf({ path, by, at, ...readIn(value) }) }
      : { ...value };
  // A member may be called as one that every object has.
  for (const [key, member] of Object.entries(named)) {
    if (typeof member !== 'object') continue;
    const renamed = withNames(member, nameOf, [...path, key]);
    Object.defineProperty(named, key, { value: renamed, enumerable: true, configurable: true, writable: true });
  }
  return named;
}

/**
 * All stamps of a document, at whatever they stand.
 *
 * @example stampsIn({ printed: { by: 'Wren', at: '2026-01-01T10:00:00Z' } }) // [{ path: ['printed'], by: 'Wren', at: '2026-01-01T10:00:00Z' }]
 */
export function stampsIn(document: Json): PersonStamp[] {
  const stamps: PersonStamp[] = [];
  withNames(document, (stamp) => {
    stamps.push(stamp);
    return stamp.by;
  });
  return stamps;
}

/** What a thing was before is kept in this list of its own; its stamps stood at the thing itself. */
const EARLIER = 'earlier';

/** Tells a stamp from all others of its document. One that is kept among what was earlier is the one that stood at the place itself. */
export function stampKey({ path, by, at, says }: PersonStamp): string {
  const stood = path.filter((key, place) => key !== EARLIER && !(key === null && path[place - 1] === EARLIER));
  return JSON.stringify([stood, by, at, says]);
}

/**
 * The stamps of a document that name somebody else and have not stood there before; one that stood under another reading has not.
 *
 * @param before the document that it was made from; null for a new one
 * @param by the one whose name may be new in it
 * @example newStampsOfOthers(null, { printed: { by: 'Wren', at: '2026-01-01T10:00:00Z' } }, 'Teasel').length // 1
 */
export function newStampsOfOthers(before: Json, after: Json, by: string): PersonStamp[] {
  const others = stampsIn(after).filter((stamp) => stamp.by !== by);
  if (others.length === 0) return [];
  const stood = new Set(stampsIn(before).map(stampKey));
  return others.filter((stamp) => !stood.has(stampKey(stamp)));
}

/**
 * The same document with those stamps under another name.
 *
 * @example stampedBy({ by: 'Wren', at: '2026' }, [{ path: [], by: 'Wren', at: '2026' }], 'Teasel') // { by: 'Teasel', at: '2026' }
 */
export function stampedBy(document: Json, stamps: readonly PersonStamp[], by: string): Json {
  const keys = new Set(stamps.map(stampKey));
  return withNames(document, (stamp) => (keys.has(stampKey(stamp)) ? by : stamp.by));
}
