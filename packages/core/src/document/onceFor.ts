/**
 * Remembers what was worked out from two values, for as long as both are there: asked again for the very same two, nothing is worked out
 * again. The values are told apart as objects, not by what is in them: they must never be changed in place.
 *
 * @param work a pure function
 */
export function onceFor<One extends object, Other extends object, Result>(
  work: (one: One, other: Other) => Result,
): (one: One, other: Other) => Result {
  const known = new WeakMap<One, WeakMap<Other, { readonly result: Result }>>();
  return (one, other) => {
    const ofOne = known.get(one) ?? new WeakMap<Other, { readonly result: Result }>();
    known.set(one, ofOne);
    const found = ofOne.get(other);
    if (found) return found.result;
    const result = work(one, other);
    ofOne.set(other, { result });
    return result;
  };
}
