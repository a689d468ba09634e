/**
 * A small seeded generator of numbers in [0, 1): Mulberry32 (public domain, by Tommy Ettinger; cited from memory). Good for drawing
 * engines, not for secrets.
 *
 * @example seeded(1)() === seeded(1)() // true
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
