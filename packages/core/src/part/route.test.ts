import { describe, expect, it } from 'vitest';
import { routes } from './route.js';

describe('routes of measuring', () => {
  it('set the gauge once for all housings, or once for each', () => {
    // By hand, five mains: vise, block; five times block, vise; five times shaft, vise, block.
    expect(routes(5).map(({ zeroing, settings, walks, order }) => [zeroing, settings, walks, order])).toEqual([
      ['setting', 1, 1, 'along'],
      ['bore', 5, 9, 'down'],
      ['journal', 5, 14, 'down'],
    ]);
  });

  it('read every housing once, from the front, whichever is taken', () => {
    for (const count of [1, 2, 9, 16]) {
      for (const { legs } of routes(count)) {
        const read = legs.filter(({ stand }) => stand === 'housing').flatMap(({ parts }) => parts);
        expect(read).toEqual(Array.from({ length: count }, (_, at) => at + 1));
      }
      // One setting for all is never worse.
      const [best] = routes(count);
      expect(best!.zeroing).toBe('setting');
    }
  });

  it('set the gauge before it is read on a setting or a journal, and after it was zeroed in a bore', () => {
    const stands = (zeroing: string) =>
      routes(2)
        .find((one) => one.zeroing === zeroing)!
        .legs.map(({ stand }) => stand);
    expect(stands('setting')).toEqual(['vise', 'housing']);
    expect(stands('bore')).toEqual(['housing', 'vise', 'housing', 'vise']);
    expect(stands('journal')).toEqual(['shaft', 'vise', 'housing', 'shaft', 'vise', 'housing']);
  });
});
