import { expose, type Remote } from 'comlink';
import { afterEach, expect, it } from 'vitest';
import { FitSearcher, type SearchWorker } from './fitSearch.js';
import type { FitSearch } from './fitWorker.js';

/** Answers as the page's worker does, over a port of its own; "drawn" with a seed below zero never ends. */
const answers = {
  drawn: (_: unknown, draws: number, seed: number) => (seed < 0 ? new Promise(() => {}) : { draws, seed }),
};

let started: MessageChannel[] = [];
function worker(): SearchWorker {
  const channel = new MessageChannel();
  started.push(channel);
  const { port1: page, port2: other } = channel;
  expose(answers, other);
  return {
    postMessage: (message: unknown, transfer: Transferable[] = []) => page.postMessage(message, transfer),
    addEventListener: page.addEventListener.bind(page),
    removeEventListener: page.removeEventListener.bind(page),
    start: () => page.start(),
    terminate: () => page.close(),
  };
}

afterEach(() => {
  for (const { port1, port2 } of started) {
    port1.close();
    port2.close();
  }
  started = [];
});

const ask = (seed: number) => (search: Remote<FitSearch>) =>
  search.drawn({} as never, 1, seed).then((drawn) => (drawn as unknown as { seed: number }).seed);

it('answers one question after the other', async () => {
  const searcher = new FitSearcher(worker);
  expect(await Promise.all([1, 2, 3].map((seed) => searcher.ask(ask(seed))))).toEqual([1, 2, 3]);
  expect(started).toHaveLength(1);
});

it('ends what nobody waits for any more, and goes on with what somebody does', async () => {
  const searcher = new FitSearcher(worker);
  const unwanted = new AbortController();
  let isTold = false;
  const tell = () => {
    isTold = true;
  };
  const endless = searcher.ask(ask(-1), unwanted.signal).then(tell, tell);
  const next = searcher.ask(ask(2));
  unwanted.abort();
  expect(await next).toBe(2);
  expect(started).toHaveLength(2);
  void endless;
  expect(isTold).toBe(false);
});

it('never asks what was given up before its turn', async () => {
  const searcher = new FitSearcher(worker);
  const unwanted = new AbortController();
  const first = searcher.ask(ask(1));
  void searcher.ask(ask(-1), unwanted.signal);
  const last = searcher.ask(ask(3));
  unwanted.abort();
  void searcher.ask(ask(-1), unwanted.signal);
  expect(await first).toBe(1);
  expect(await last).toBe(3);
  expect(started).toHaveLength(1);
});

it('stops at once when it is told to, and answers what is asked after that', async () => {
  const searcher = new FitSearcher(worker);
  void searcher.ask(ask(-1));
  searcher.stop();
  expect(await searcher.ask(ask(4))).toBe(4);
});

it('tells all who wait that the search broke off, and searches again for who asks next', async () => {
  let isBroken = true;
  const searcher = new FitSearcher(() => {
    const whole = worker();
    if (!isBroken) return whole;
    const breaks: SearchWorker['addEventListener'] = (type, listener) => {
      if (type !== 'error') return whole.addEventListener(type, listener);
      setTimeout(() => (listener as (event: object) => void)({ message: 'no such file' }));
    };
    return { ...whole, addEventListener: breaks };
  });
  const both = [searcher.ask(ask(-1)), searcher.ask(ask(2))];
  for (const one of both)
    await expect(one).rejects.toThrow('the search did not load or stopped (no such file); reload the page');
  isBroken = false;
  expect(await searcher.ask(ask(5))).toBe(5);
});

it('tells what went wrong with one question to who asked it, and goes on', async () => {
  const searcher = new FitSearcher(worker);
  await expect(searcher.ask(() => Promise.reject(new Error('shells: too many')))).rejects.toThrow('shells: too many');
  expect(await searcher.ask(ask(6))).toBe(6);
});
