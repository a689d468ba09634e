import { describe, expect, it, vi } from 'vitest';
import { BodyRoom } from './BodyRoom.js';

const MB = 2 ** 20;

describe('the room for bodies', () => {
  it('out of date at once than there is, and lets each in that waited', async () => {
    const room = new BodyRoom(10);
    let [now, most] = [0, 0];
    await Promise.all(
      Array.from({ length: 30 }, async (_, at) => {
        const bytes = ((at % 4) + 1) * MB;
        const giveBack = await room.take(`client ${at % 5}`, bytes);
        now += bytes;
        most = Math.max(most, now);
        await new Promise((resolve) => setTimeout(resolve, 2));
        now -= bytes;
        giveBack();
        giveBack();
      }),
    );
    expect(now).toBe(0);
    expect(most).toBeLessThanOrEqual(10 * MB);
    expect(most).toBeGreaterThan(5 * MB);
  });

  it('lets in first who has the least in there', async () => {
    const room = new BodyRoom(4);
    const held = [await room.take('greedy', 2 * MB), await room.take('greedy', 2 * MB)];
    const order: string[] = [];
    const wait = async (client: string) => {
      const giveBack = await room.take(client, 2 * MB);
      order.push(client);
      giveBack();
    };
    const all = [wait('greedy'), wait('greedy'), wait('other')];
    held[0]!();
    await Promise.all(all);
    held[1]!();
    expect(order[0]).toBe('other');
  });

  it('tells who waited too long to come again', async () => {
    vi.useFakeTimers();
    const room = new BodyRoom(1);
    const giveBack = await room.take('one', MB);
    const late = expect(room.take('other', MB)).rejects.toMatchObject({ kind: 'too-busy', retryAfterS: 5 });
    await vi.advanceTimersByTimeAsync(10_001);
    await late;
    giveBack();
    vi.useRealTimers();
    (await room.take('third', MB))();
  });
});
