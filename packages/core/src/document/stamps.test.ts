import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Json } from './mergeThreeWays.js';
import { newStampsOfOthers, stampedBy, stampKey, stampsIn } from './stamps.js';

const AT = '2026-01-02T03:04:05.000Z';
const wren = { by: 'Wren', at: AT };
const names = fc.constantFrom('Wren', 'Teasel', 'Finch');
/** Documents of records and lists with stamps anywhere in them, and members of any name. */
const { document } = fc.letrec<{ document: Json; stamp: Json }>((tie) => ({
  document: fc.oneof(
    { maxDepth: 4 },
    fc.jsonValue({ maxDepth: 1 }) as fc.Arbitrary<Json>,
    tie('stamp'),
    fc.array(tie('document'), { maxLength: 3 }),
    fc.dictionary(fc.constantFrom('a', '1', '__proto__', 'constructor', 'by'), tie('document'), { maxKeys: 3 }),
  ),
  stamp: fc.record({ by: names, at: fc.constantFrom(AT, '2026-02-03T04:05:06.000Z'), what: tie('document') }),
}));

describe('stamps of a document', () => {
  it('are found in records and lists, one within another, and nowhere else', () => {
    const made = { a: { ...wren, list: [{ ...wren, at: 'later' }, wren] }, by: 'Wren', b: { by: 3, at: AT }, c: null };
    expect(stampsIn(made)).toEqual([
      { path: ['a'], by: 'Wren', at: AT },
      { path: ['a', 'list', null], by: 'Wren', at: 'later' },
      { path: ['a', 'list', null], by: 'Wren', at: AT },
    ]);
  });

  it('that are another’s are new only where they have not stood', () => {
    const before = { ticks: { M1: wren } };
    const others = (after: Json) => newStampsOfOthers(before, after, 'Teasel').map(({ path }) => path.join('/'));
    expect(others({ ticks: { M1: wren, M2: { by: 'Teasel', at: AT } } })).toEqual([]);
    expect(others({ ticks: { M1: { ...wren, at: 'later' }, M2: wren } })).toEqual(['ticks/M1', 'ticks/M2']);
  });

  it('that stood under another reading are new: who rewrites a reading has read it', () => {
    const reading = { ...wren, text: '0.093', unit: 'mm', nm: 93_000 };
    const before = { readings: { one: reading } };
    const others = (after: Json) => newStampsOfOthers(before, after, 'Teasel').map(({ path }) => path.join('/'));
    expect(others({ readings: { one: reading } })).toEqual([]);
    expect(others({ readings: { one: { ...reading, note: 'looked at again' } } })).toEqual([]);
    const rewritten = { readings: { one: { ...reading, text: '0.117', nm: 117_000 } } };
    expect(others(rewritten)).toEqual(['readings/one']);
    const [stamp] = newStampsOfOthers(before, rewritten, 'Teasel');
    expect(stampedBy(rewritten, [stamp!], 'Teasel')).toMatchObject({
      readings: { one: { by: 'Teasel', nm: 117_000 } },
    });
  });

  it('go under the sender’s name, and all else stays as it was', () => {
    fc.assert(
      fc.property(document, document, names, (before, after, by) => {
        const others = newStampsOfOthers(before, after, by);
        const signed = stampedBy(after, others, by);
        expect(newStampsOfOthers(before, signed, by)).toEqual([]);
        // Nothing but names was changed, and no name that had stood.
        const kept = new Set(stampsIn(before).map(stampKey));
        const [was, is] = [stampsIn(after), stampsIn(signed)];
        expect(is).toEqual(was.map((stamp) => (kept.has(stampKey(stamp)) ? stamp : { ...stamp, by })));
        const nameless = (value: Json) =>
          JSON.stringify(value, (key, member) => (key === 'by' && typeof member === 'string' ? '' : member));
        expect(nameless(signed)).toBe(nameless(after));
      }),
    );
  });

  it('of what is kept as earlier are those that stood at the place itself', () => {
    const at = '2026-02-03T08:00:00Z';
    const trial = { by: 'Wren', at, readings: { one: { by: 'Wren', at } } };
    const before = { trials: { M1: trial } };
    const moved = { trials: { M1: { by: 'Teasel', at, readings: {}, earlier: [trial] } } };
    expect(newStampsOfOthers(before, moved, 'Teasel')).toEqual([]);
    const elsewhere = { trials: { M2: { by: 'Teasel', at, readings: {}, earlier: [trial] } } };
    expect(newStampsOfOthers(before, elsewhere, 'Teasel')).toHaveLength(2);
  });
});
