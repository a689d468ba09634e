import { describe, expect, it } from 'vitest';
import { FairQueue } from './FairQueue.js';

const still = new AbortController().signal;

/** Work that is done when it is told so. */
function held() {
  let finish = () => {};
  const done = new Promise<void>((resolve) => {
    finish = resolve;
  });
  return { done, finish };
}

describe('a fair queue', () => {
  it('lets each client have a turn, however much one of them asks for', async () => {
    const queue = new FairQueue(1);
    const order: string[] = [];
    const first = held();
    const all = [queue.run('greedy', still, () => first.done)];
    for (const [client, name] of [
      ['greedy', 'g1'],
      ['greedy', 'g2'],
      ['greedy', 'g3'],
      ['one', 'o1'],
      ['other', 't1'],
    ] as const) {
      all.push(queue.run(client, still, async () => void order.push(name)));
    }
    first.finish();
    await Promise.all(all);
    expect(order).toEqual(['g1', 'o1', 't1', 'g2', 'g3']);
  });

  it('runs only so many at once', async () => {
    const queue = new FairQueue(2);
    let [running, most] = [0, 0];
    await Promise.all(
      Array.from({ length: 12 }, (_, at) =>
        queue.run(`client ${at % 3}`, still, async () => {
          running += 1;
          most = Math.max(most, running);
          await new Promise((resolve) => setTimeout(resolve, 2));
          running -= 1;
        }),
      ),
    );
    expect([running, most]).toEqual([0, 2]);
  });

  it('tells who asks for too much to come again, and goes on with the others', async () => {
    const queue = new FairQueue(1);
    const first = held();
    const running = queue.run('greedy', still, () => first.done);
    const waiting = Array.from({ length: 16 }, () => queue.run('greedy', still, async () => 1));
    await expect(queue.run('greedy', still, async () => 1)).rejects.toMatchObject({ kind: 'too-busy', retryAfterS: 5 });
    const other = queue.run('other', still, async () => 2);
    first.finish();
    expect(await other).toBe(2);
    expect(await Promise.all(waiting)).toHaveLength(16);
    await running;
  });

  it('goes on after work that failed, and does not begin what nobody waits for', async () => {
    const queue = new FairQueue(1);
    await expect(queue.run('one', still, () => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    const gone = new AbortController();
    gone.abort();
    expect(await queue.run('one', gone.signal, () => Promise.reject(new Error('begun')))).toBeNull();
    expect(await queue.run('one', still, async () => 3)).toBe(3);
  });
});
