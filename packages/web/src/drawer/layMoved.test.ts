import { describe, expect, it } from 'vitest';
import { withMoved } from './layMoved.js';

const line = (id: string, fittedHere = 0, onHand = 1) => ({ id, fittedHere, onHand });

describe('a list of the drawer with a movement laid into it', () => {
  it('has what was changed, put in and taken out, in its order, and what was fitted here as it was', () => {
    const list = [line('a', 2), line('b'), line('d')];
    const changed = [line('a', 0, 5), line('c', 0, 7)];
    expect(withMoved(list, changed, ['b'])).toEqual([line('a', 2, 5), line('c', 0, 7), line('d')]);
    expect(withMoved(list, [], [])).toEqual(list);
  });
});
