import { threadId } from 'node:worker_threads';

const held: number[][] = [];

/** Holds on to so many MB, as a thread does that has once read something large. @returns the thread's id */
export default function hold({ mb }: { readonly mb: number }): number {
  // 128 kB each, of numbers that are no small integers.
  for (let at = 0; at < mb * 8; at += 1) held.push(new Array<number>(16_384).fill(at + 0.5));
  return threadId;
}
