import { describe, expect, it } from 'vitest';
import { nextParcel } from './nextParcel.js';
import type { Parcel } from './outbox.js';

const reading = (id: string, jobId: string, replaces: string | null = null) =>
  ({ kind: 'reading', id, jobId, draft: { replaces } }) as unknown as Parcel;
const change = (id: string, jobId: string) => ({ kind: 'document', id, jobId }) as unknown as Parcel;
const always = () => true;

describe('the parcel that goes next', () => {
  it('is the oldest, unless it rests: then one that does not rest upon it', () => {
    const parcels = [reading('a', 'one'), reading('b', 'one', 'a'), reading('c', 'one', 'b'), reading('d', 'one')];
    expect(nextParcel(parcels, always, () => false)?.id).toBe('a');
    expect(nextParcel(parcels, always, (id) => id === 'a')?.id).toBe('d');
    expect(nextParcel(parcels.slice(0, 3), always, (id) => id === 'a')).toBeUndefined();
  });

  it('is none of an engine that itself, or a change of which, rests', () => {
    const parcels = [change('a', 'one'), reading('b', 'one'), change('c', 'two')];
    expect(nextParcel(parcels, always, (id) => id === 'a')?.id).toBe('c');
  });

  it('is one that may be sent', () => {
    const parcels = [reading('a', 'one'), reading('b', 'one')];
    expect(
      nextParcel(
        parcels,
        ({ id }) => id !== 'a',
        () => false,
      )?.id,
    ).toBe('b');
  });
});
