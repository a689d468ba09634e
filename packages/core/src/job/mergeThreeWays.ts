/** Any JSON value. */
export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

function isRecord(value: unknown): value is Record<string, Json> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** One changed place: its path and what stood there before and after; `undefined` where there was nothing. */
export interface Change {
  readonly path: readonly string[];
  readonly from: Json | undefined;
  readonly to: Json | undefined;
}

/** Whether two JSON values are the same; the order of members does not count. */
function isSame(a: Json | undefined, b: Json | undefined): boolean {
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, at) => isSame(item, b[at]));
  if (!isRecord(a) || !isRecord(b)) return a === b;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && isSame(a[key], b[key]));
}

/** The places in which two documents differ, records entered member by member, arrays taken whole. */
export function changesBetween(from: Json | undefined, to: Json | undefined, path: readonly string[] = []): Change[] {
  if (isRecord(from) && isRecord(to)) {
    const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])];
    return keys.flatMap((key) => changesBetween(from[key], to[key], [...path, key]));
  }
  return isSame(from, to) ? [] : [{ path, from, to }];
}

/** What stands at a path of a document. */
export function valueAt(document: Json | undefined, path: readonly string[]): Json | undefined {
  return path.reduce<Json | undefined>((value, key) => (isRecord(value) ? value[key] : undefined), document);
}

/** The same document with one place set; `undefined` takes the member away. Records on the way are made where missing. */
export function withValueAt(
  document: Json | undefined,
  path: readonly string[],
  value: Json | undefined,
): Json | undefined {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  const record = isRecord(document) ? { ...document } : {};
  const inner = withValueAt(record[key], rest, value);
  if (inner === undefined) delete record[key];
  else record[key] = inner;
  return record;
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

/** Applies the steps in order to a document of records; arrays are replaced whole. */
export function applyPatch(document: Json, steps: readonly PatchStep[]): Json {
  return steps.reduce<Json>(
    (result, step) => withValueAt(result, keysOfPointer(step.path), step.op === 'add' ? step.value : undefined) ?? null,
    document,
  );
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

/**
 * Merges two sets of changes to one document: ours are laid over theirs, except where both touched the same place and
 * disagree. Those are returned for a person to decide; nothing is overwritten.
 *
 * @param base what both started from
 * @param ours our version
 * @param theirs the version that is there now
 */
export function mergeThreeWays(base: Json, ours: Json, theirs: Json): Merged {
  const theirChanges = changesBetween(base, theirs);
  const clashes: (Change & { theirs: Json | undefined })[] = [];
  let document: Json | undefined = theirs;
  for (const change of changesBetween(base, ours)) {
    const there = valueAt(theirs, change.path);
    const touched = theirChanges.some((other) => overlaps(other.path, change.path));
    if (touched && !isSame(there, change.to)) clashes.push({ ...change, theirs: there });
    else document = withValueAt(document, change.path, change.to);
  }
  return { document: document ?? null, clashes };
}
