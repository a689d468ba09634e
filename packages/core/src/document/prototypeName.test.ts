import { describe, expect, it } from 'vitest';
import { applyPatch, PatchMisfit } from './mergeThreeWays.js';
import { storageFaults } from './storableText.js';

describe('the name that every object of JavaScript has', () => {
  it('is refused as that of a member, and in a step of a change', () => {
    expect(storageFaults(JSON.parse('{"shells":{"__proto__":{"wall":1}}}'))).toEqual([
      { path: '/shells', message: 'the name of a member: it may not be __proto__' },
    ]);
    for (const path of ['/__proto__/isAdmin', '/shells/__proto__', '/__proto__']) {
      const change = () => applyPatch({ shells: {} }, [{ op: 'add', path, value: 1 }]);
      expect(change).toThrow(PatchMisfit);
      expect(change).toThrow('nothing is called __proto__');
    }
  });
});
