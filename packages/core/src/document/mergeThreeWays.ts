import { PROTOTYPE } from './storableText.js';

/** Any JSON value. */
export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

function isRecord(value: unknown): value is Record<string, Json> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A member of a record of its own; never one that every object has. */
function memberOf(record: Record<string, Json>, key: string): Json | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}

/** One changed place: its path and what stood there before and after; `undefined` where there was nothing. */
export interface Change {
  readonly path: readonly string[];
  readonly from: Json | undefined;
  readonly to: Json | undefined;
}

/** True if two JSON values are the same; the order of members does not count. */
function isSame(a: Json | undefined, b: Json | undefined): boolean {
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, at) => isSame(item, b[at]));
  if (!isRecord(a) || !isRecord(b)) return a === b;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => Object.hasOwn(b, key) && isSame(a[key], b[key]));
}

/** The places in which two documents differ, records entered member by member, arrays taken whole. */
export function changesBetween(from: Json | undefined, to: Json | undefined, path: readonly string[] = []): Change[] {
  if (isRecord(from) && isRecord(to)) {
    const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])];
    return keys.flatMap((key) => changesBetween(memberOf(from, key), memberOf(to, key), [...path, key]));
  }
  return isSame(from, to) ? [] : [{ path, from, to }];
}

/** What stands at a path of a document. */
export function valueAt(document: Json | undefined, path: readonly string[]): Json | undefined {
  return path.reduce<Json | undefined>((value, key) => (isRecord(value) ? memberOf(value, key) : undefined), document);
}

/** Sets a member as one of the record's own, whatever its name. */
function setMember(record: Record<string, Json>, key: string, value: Json): void {
  if (key === '__proto__') {
    Object.defineProperty(record, key, { value, enumerable: true, configurable: true, writable: true });
  } else record[key] = value;
}

/** A document in which many places are set: each record on the way is copied once, and the document it began with stays as it is. */
class Edited {
  document: Json | undefined;
  private readonly copied = new WeakSet<object>();

  constructor(document: Json | undefined) {
    this.document = document;
  }

  /** A record that may be changed: a copy of what stands there, or a new one where none does. */
  private open(value: Json | undefined): Record<string, Json> {
    if (isRecord(value) && this.copied.has(value)) return value;
    const record = isRecord(value) ? { ...value } : {};
    this.copied.add(record);
    return record;
  }

  /** Sets one place; `undefined` takes the member away. Records on the way are made where missing. */
  set(path: readonly string[], value: Json | undefined): void {
    const last = path.at(-1);
    if (last === undefined) {
      this.document = value;
      return;
    }
    let record = this.open(this.document);
    this.document = record;
    for (const key of path.slice(0, -1)) {
      const inner = this.open(memberOf(record, key));
      setMember(record, key, inner);
      record = inner;
    }
    if (value === undefined) delete record[last];
    else setMember(record, last, value);
  }
}

/** The same document with one place set; `undefined` takes the member away. Records on the way are made where missing. */
export function withValueAt(
  document: Json | undefined,
  path: readonly string[],
  value: Json | undefined,
): Json | undefined {
  const edited = new Edited(document);
  edited.set(path, value);
  return edited.document;
}

/** One step of a JSON Patch (RFC 6902). Only `add` (which also replaces a member) and `remove` are used. */
export type PatchStep =
  | { readonly op: 'add'; readonly path: string; readonly value: Json }
  | { readonly op: 'remove'; readonly path: string };

/** A change as a step of a JSON Patch. */
export function patchStepOf({ path, to }: Change): PatchStep {
  const pointer = path.map((key) => `/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');
  return to === undefined ? { op: 'remove', path: pointer } : { op: 'add', path: pointer, value: to };
}

/**
 * The keys of a JSON Pointer (RFC 6901).
 *
 * @example keysOfPointer('/shells/a~1b/wall') // ['shells', 'a/b', 'wall']
 */
export function keysOfPointer(pointer: string): string[] {
  return pointer
    .split('/')
    .slice(1)
    .map((key) => key.replaceAll('~1', '/').replaceAll('~0', '~'));
}

/** A step of a patch that does not fit the document. */
export class PatchMisfit extends Error {
  /** JSON Pointer of the place. */
  readonly path: string;

  constructor(path: string, message: string) {
    super(message);
    this.path = path;
  }
}

/**
 * Applies the steps in order to a document of records; arrays are replaced whole.
 *
 * @throws PatchMisfit where the record that a step changes is not there: somebody has taken it away (RFC 6902, 4.1 and 4.2)
 */
export function applyPatch(document: Json, steps: readonly PatchStep[]): Json {
  const result = new Edited(document);
  for (const step of steps) {
    const keys = keysOfPointer(step.path);
    if (keys.includes(PROTOTYPE)) throw new PatchMisfit(step.path, `nothing is called ${PROTOTYPE}`);
    const isRoot = keys.length === 0;
    if (!isRoot && !isRecord(valueAt(result.document, keys.slice(0, -1)))) {
      throw new PatchMisfit(step.path, 'the item this change belongs to no longer exists');
    }
    if (step.op === 'remove' && valueAt(result.document, keys) === undefined) {
      throw new PatchMisfit(step.path, 'the item this change removes no longer exists');
    }
    result.set(keys, step.op === 'add' ? step.value : undefined);
    // Taken away as a whole, nothing is left of it but a document that is none.
    result.document ??= null;
  }
  return result.document ?? null;
}

export interface Merged {
  readonly document: Json;
  /** Changes of ours at places where theirs changed too, to something else; not applied. */
  readonly clashes: readonly (Change & { readonly theirs: Json | undefined })[];
}

function overlaps(a: readonly string[], b: readonly string[]): boolean {
  const length = Math.min(a.length, b.length);
  return a.slice(0, length).every((key, at) => key === b[at]);
}

/** The part of a path up to where a document has no record any more to go on into; the whole path where it has. */
function reachOf(document: Json, path: readonly string[]): readonly string[] {
  const end = path.findIndex((_, depth) => !isRecord(valueAt(document, path.slice(0, depth))));
  return end < 0 ? path : path.slice(0, end);
}

/**
 * Merges two sets of changes to one document: ours are laid over theirs, except where both touched the same place and
 * disagree. Those are returned for a person to decide; nothing is overwritten, and nothing comes back in part: a change within a
 * record that they took away is a clash over the whole record.
 *
 * @param base what both started from
 * @param ours our version
 * @param theirs the version that is there now
 */
export function mergeThreeWays(base: Json, ours: Json, theirs: Json): Merged {
  const theirChanges = changesBetween(base, theirs);
  const clashes = new Map<string, Change & { theirs: Json | undefined }>();
  const merged = new Edited(theirs);
  for (const change of changesBetween(base, ours)) {
    // Where their record is gone, or is no record any more, it is all of it that is in question.
    const path = reachOf(theirs, change.path);
    const [there, to] = [valueAt(theirs, path), valueAt(ours, path)];
    const touched = theirChanges.some((other) => overlaps(other.path, path));
    if (!touched) merged.set(path, to);
    else if (!isSame(there, to)) {
      clashes.set(patchStepOf({ path, from: undefined, to: null }).path, {
        path,
        from: valueAt(base, path),
        to,
        theirs: there,
      });
    }
  }
  return { document: merged.document ?? null, clashes: [...clashes.values()] };
}
