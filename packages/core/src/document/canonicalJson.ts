/**
 * JSON of a value, always the same for the same value: members by the alphabet of their names, no space. For a hash; members that are
 * undefined are left out, as JSON does.
 *
 * @example canonicalJson({ b: [1, undefined], a: 'x' }) // '{"a":"x","b":[1,null]}'
 */
export function canonicalJson(value: unknown): string {
  return JSON.stringify(value, (_, member: unknown) => {
    if (typeof member !== 'object' || member === null || Array.isArray(member)) return member;
    return Object.fromEntries(
      Object.entries(member).sort(([one], [other]) => (one < other ? -1 : one > other ? 1 : 0)),
    );
  });
}
