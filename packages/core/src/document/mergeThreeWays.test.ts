import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyPatch,
  changesBetween,
  type Json,
  mergeThreeWays,
  PatchMisfit,
  patchStepOf,
  valueAt,
} from './mergeThreeWays.js';

/** A document as jobs are: records by id, each with all of its fields. */
const shell = fc.record({ wall: fc.nat(5), stock: fc.option(fc.nat(3)), grade: fc.constantFrom('teal', 'plum') });
const job = fc.record({
  name: fc.constantFrom('Sedge 4', 'Reed 6', 'Burr 2'),
  limits: fc.record({ low: fc.nat(3), high: fc.nat(3) }),
  order: fc.array(fc.nat(3), { maxLength: 3 }),
  shells: fc.dictionary(fc.constantFrom('a', 'b', 'c', 'toString', 'constructor'), shell, { maxKeys: 4 }),
}) as fc.Arbitrary<Json>;

/** Any documents at all, changed into each other anywhere. */
const anything = fc.jsonValue({ maxDepth: 3 }) as fc.Arbitrary<Json>;

/** The first with those of its members that `bits` names as the other has them: what a person changes in one go. */
function partlyChanged(base: Json, other: Json, bits: number): Json {
  const isRecord = (one: Json) => typeof one === 'object' && one !== null && !Array.isArray(one);
  if (!isRecord(base) || !isRecord(other)) return bits === 0 ? base : other;
  const [from, to] = [base, other] as Record<string, Json>[];
  const keys = [...new Set([...Object.keys(from!), ...Object.keys(to!)])].sort();
  return Object.fromEntries(
    keys.flatMap((key, at) => {
      const source = ((bits >> (at % 4)) & 1) === 1 ? to! : from!;
      return Object.hasOwn(source, key) ? [[key, source[key]!]] : [];
    }),
  );
}

function isWhole(document: Json): boolean {
  const shells = Object.values((document as { shells: Record<string, object> }).shells);
  return shells.every((one) => Object.keys(one).sort().join() === 'grade,stock,wall');
}

describe('a record changed by one and taken away by the other', () => {
  const base: Json = { shells: { a: { wall: 1, grade: 'teal' } } };
  const changed: Json = { shells: { a: { wall: 2, grade: 'teal' } } };
  const gone: Json = { shells: {} };

  it('is a clash over the whole record, whoever comes second', () => {
    expect(mergeThreeWays(base, changed, gone)).toEqual({
      document: gone,
      clashes: [
        { path: ['shells', 'a'], from: { wall: 1, grade: 'teal' }, to: { wall: 2, grade: 'teal' }, theirs: undefined },
      ],
    });
    expect(mergeThreeWays(base, gone, changed)).toMatchObject({
      document: changed,
      clashes: [{ path: ['shells', 'a'], to: undefined, theirs: { wall: 2 } }],
    });
    // Taking a field away within it does not bring an empty record back either.
    expect(mergeThreeWays(base, { shells: { a: { wall: 1 } } }, gone).document).toEqual(gone);
    expect(mergeThreeWays(base, { shells: { a: { wall: 1 } } }, gone).clashes).toHaveLength(1);
  });

  it('refuses a patch to what is not there', () => {
    const steps = changesBetween(base, changed).map(patchStepOf);
    expect(() => applyPatch(gone, steps)).toThrow(PatchMisfit);
    expect(() => applyPatch(gone, [{ op: 'remove', path: '/shells/a' }])).toThrow(PatchMisfit);
    expect(applyPatch(base, steps)).toEqual(changed);
  });
});

describe.each([
  ['documents of jobs', job],
  ['any documents', anything],
])('merging %s', (_, arbitrary) => {
  const three = fc
    .tuple(arbitrary, arbitrary, arbitrary, fc.nat(15), fc.nat(15))
    .map(
      ([base, one, two, ours, theirs]) =>
        [base, partlyChanged(base, one, ours), partlyChanged(base, two, theirs)] as const,
    );

  it('loses no change: each of ours is there or asked about, each of theirs is there', () => {
    const met = { ours: 0, theirs: 0, asked: 0 };
    fc.assert(
      fc.property(three, ([base, ours, theirs]) => {
        const { document, clashes } = mergeThreeWays(base, ours, theirs);
        const isAsked = (path: readonly string[]) =>
          clashes.some((clash) => clash.path.every((key, at) => key === path[at]));
        for (const { path, to } of changesBetween(base, ours)) {
          if (isAsked(path)) continue;
          met.ours += 1;
          expect(valueAt(document, path)).toEqual(to);
        }
        for (const { path, to } of changesBetween(base, theirs)) {
          const isWithin = changesBetween(base, ours).some((own) => own.path.length > path.length);
          if (isWithin) continue;
          met.theirs += 1;
          expect(valueAt(document, path)).toEqual(to);
        }
        for (const { path, to, theirs: there } of clashes) {
          expect(valueAt(document, path)).toEqual(there);
          expect(valueAt(ours, path)).toEqual(to);
          met.asked += 1;
        }
      }),
      { numRuns: 1500, seed: 11 },
    );
    for (const count of Object.values(met)) expect(count).toBeGreaterThan(300);
  });

  it('gives the same whichever is sent first, and asks about the same places', () => {
    let [agreed, asked] = [0, 0];
    fc.assert(
      fc.property(three, ([base, ours, theirs]) => {
        const [one, two] = [mergeThreeWays(base, ours, theirs), mergeThreeWays(base, theirs, ours)];
        expect(one.clashes.length > 0).toBe(two.clashes.length > 0);
        if (one.clashes.length > 0) {
          asked += 1;
          return;
        }
        agreed += 1;
        expect(changesBetween(one.document, two.document)).toEqual([]);
      }),
      { numRuns: 1500, seed: 12 },
    );
    expect(agreed).toBeGreaterThan(100);
    expect(asked).toBeGreaterThan(100);
  });

  it('changes nothing where only one did', () => {
    fc.assert(
      fc.property(arbitrary, arbitrary, (base, other) => {
        expect(mergeThreeWays(base, other, base)).toEqual({ document: other, clashes: [] });
        expect(mergeThreeWays(base, base, other)).toEqual({ document: other, clashes: [] });
        expect(changesBetween(applyPatch(base, changesBetween(base, other).map(patchStepOf)), other)).toEqual([]);
      }),
      { numRuns: 500, seed: 13 },
    );
  });
});

describe('merging jobs', () => {
  it('never makes a record with some of its fields', () => {
    fc.assert(
      fc.property(job, job, job, (base, ours, theirs) => {
        expect(isWhole(mergeThreeWays(base, ours, theirs).document)).toBe(true);
      }),
      { numRuns: 1500, seed: 14 },
    );
  });
});
