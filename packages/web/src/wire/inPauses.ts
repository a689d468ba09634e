import { whenQuiet } from '../base/whenQuiet.js';

/** Things to be written down in the pauses of typing, the last of each. */
const waiting = new Map<string, () => Promise<void>>();
let isWriting = false;

async function write(): Promise<void> {
  isWriting = true;
  try {
    while (waiting.size > 0) {
      await whenQuiet();
      const [key, work] = waiting.entries().next().value!;
      waiting.delete(key);
      // A browser that keeps nothing goes without: then it has nothing to show while the server is away.
      await work().catch(() => undefined);
    }
  } finally {
    isWriting = false;
  }
}

/** Does something when nobody types; where it is asked for again before that, only the last time. */
export function inPauses(key: string, work: () => Promise<void>): void {
  waiting.set(key, work);
  if (!isWriting) void write();
}
