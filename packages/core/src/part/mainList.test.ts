import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mainListText, readMainList } from './mainList.js';

describe('some of the mains, as one writes them', () => {
  it('come back as they were, whatever they are', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 20 })), (mains) => {
        const read = readMainList(mainListText(mains), 20);
        expect(read).toEqual({ ok: true, mains: [...mains].sort((one, other) => one - other) });
      }),
      { seed: 5 },
    );
  });

  it('may be written with names, either way round and twice; what is no main is told with what would be', () => {
    expect(readMainList('M3 – M1; 2', 5)).toEqual({ ok: true, mains: [1, 2, 3] });
    expect(readMainList('', 5)).toEqual({ ok: true, mains: [] });
    expect(readMainList('front', 5)).toEqual({ ok: false, message: '“front” is no main. Write 1-3 or 1, 2, 5.' });
    expect(readMainList('0', 5)).toMatchObject({ ok: false });
    expect(readMainList('2-7', 5)).toMatchObject({ ok: false, message: expect.stringContaining('no main 7') });
  });
});
