import { describe, expect, it } from 'vitest';
import { Shared } from './Shared.js';

describe('shared work', () => {
  it('is done once for all who ask at once, and begun after each of them asked', async () => {
    let began = 0;
    const shared = new Shared(async () => {
      began += 1;
      const own = began;
      await new Promise((resolve) => setTimeout(resolve, 5));
      return own;
    });
    const first = shared.ask('list');
    const others = Array.from({ length: 30 }, () => shared.ask('list'));
    expect(await first).toBe(1);
    expect(new Set(await Promise.all(others))).toEqual(new Set([2]));
    expect(await shared.ask('list')).toBe(3);
    const [one, other] = [shared.ask('list'), shared.ask('another')];
    expect(new Set([await one, await other])).toEqual(new Set([4, 5]));
  });

  it('that fails fails for who asked, and is begun anew for who comes after', async () => {
    let began = 0;
    const shared = new Shared(async () => {
      began += 1;
      if (began === 1) throw new Error('broken');
      return began;
    });
    const first = shared.ask('list');
    const second = shared.ask('list');
    await expect(first).rejects.toThrow('broken');
    expect(await second).toBe(2);
  });
});
