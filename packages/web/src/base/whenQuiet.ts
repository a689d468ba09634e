/** Nobody types any more when no key was pressed for so long, ms. */
const QUIET_MS = 800;
/** Whoever never stops is not waited for longer than this, ms. */
const LONGEST_MS = 15_000;

let lastKey = Number.NEGATIVE_INFINITY;
// Where there is no page nobody types.
globalThis.addEventListener?.('keydown', () => {
  lastKey = performance.now();
});

/** Waits while somebody types: what is fetched in the background comes in the pauses. Resolves at once where nobody does; after 15 s in any case. */
export async function whenQuiet(): Promise<void> {
  const start = performance.now();
  for (;;) {
    const now = performance.now();
    const left = lastKey + QUIET_MS - now;
    if (left <= 0 || now - start > LONGEST_MS) return;
    await new Promise((resolve) => setTimeout(resolve, left));
  }
}
