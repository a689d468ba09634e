import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { versioned } from './versioned.js';

/** A document in its third version: lengths came in millimetres once, then in micrometres, and had no source. */
const schema = versioned(
  'fettle.gap',
  [
    ({ mm, ...rest }) => ({ ...rest, format: 'fettle.gap/1', um: Number(mm) * 1000 }),
    (old) => ({ ...old, format: 'fettle.gap/2', source: 'not given' }),
  ],
  z.strictObject({ format: z.literal('fettle.gap/2'), um: z.number(), source: z.string() }),
);

describe('a document with a version', () => {
  it.each([
    ['none', { mm: 0.05 }],
    ['1', { format: 'fettle.gap/1', um: 50 }],
    ['2', { format: 'fettle.gap/2', um: 50, source: 'not given' }],
  ])('is brought from version %s to the present one', (_, document) => {
    expect(schema.parse(document)).toEqual({ format: 'fettle.gap/2', um: 50, source: 'not given' });
  });

  it('is refused where a later build has written it, for what is not known would be lost', () => {
    const read = schema.safeParse({ format: 'fettle.gap/3', um: 50, source: 'book', drift: 2 });
    expect(read.error?.issues).toEqual([
      {
        code: 'custom',
        path: ['format'],
        message: 'fettle.gap/3 was written by a later Fettle; this version reads up to fettle.gap/2. Update Fettle',
      },
    ]);
  });

  it.each([[{ format: 'fettle.other/1' }], [{ format: 7 }], ['text'], [null], [[]]])(
    'of another kind is none: %j',
    (value) => {
      expect(schema.safeParse(value).success).toBe(false);
    },
  );

  it('is not changed while it is brought up to date', () => {
    const old = Object.freeze({ mm: 0.05 });
    schema.parse(old);
    expect(old).toEqual({ mm: 0.05 });
  });
});
