/** Keys are split here into two halves that fit 32 bits. */
const HALF = 2 ** 26;
const FIRST_SIZE = 64;

/**
 * States by key, each with its least cost, the state that it came from and the option taken. Open addressing over typed arrays: keys are whole
 * numbers up to 2^52, for which a `Map` makes an object each.
 */
export class StateTable {
  /** How many states there are. */
  size = 0;
  /** Per state, in the order in which they were reached. */
  keys = new Float64Array(FIRST_SIZE);
  cost = new Float64Array(FIRST_SIZE);
  from = new Int32Array(FIRST_SIZE);
  option = new Int32Array(FIRST_SIZE);
  /** Per slot the state there, or −1; a power of two, at least twice as many as states. */
  private slots = new Int32Array(2 * FIRST_SIZE).fill(-1);

  /** Notes that a state is reached at a cost; of two ways to it the cheaper stays, of two alike the first. */
  reach(key: number, cost: number, from: number, option: number): void {
    let slot = this.slotOf(key);
    for (let state = this.slots[slot]!; state >= 0; state = this.slots[slot]!) {
      if (this.keys[state] === key) {
        if (cost >= this.cost[state]!) return;
        this.cost[state] = cost;
        this.from[state] = from;
        this.option[state] = option;
        return;
      }
      slot = (slot + 1) & (this.slots.length - 1);
    }
    this.slots[slot] = this.size;
    this.keys[this.size] = key;
    this.cost[this.size] = cost;
    this.from[this.size] = from;
    this.option[this.size] = option;
    this.size += 1;
    if (this.size === this.keys.length) this.grow();
  }

  private slotOf(key: number): number {
    const high = Math.floor(key / HALF);
    const low = key - high * HALF;
    const mixed = Math.imul(low, 0x9e37_79b1) ^ Math.imul(high, 0x85eb_ca6b);
    return (mixed ^ (mixed >>> 15)) & (this.slots.length - 1);
  }

  private grow(): void {
    const twice = <Of extends Float64Array | Int32Array>(of: Of, made: Of): Of => {
      made.set(of);
      return made;
    };
    const length = 2 * this.keys.length;
    this.keys = twice(this.keys, new Float64Array(length));
    this.cost = twice(this.cost, new Float64Array(length));
    this.from = twice(this.from, new Int32Array(length));
    this.option = twice(this.option, new Int32Array(length));
    this.slots = new Int32Array(2 * length).fill(-1);
    for (let state = 0; state < this.size; state += 1) {
      let slot = this.slotOf(this.keys[state]!);
      while (this.slots[slot]! >= 0) slot = (slot + 1) & (this.slots.length - 1);
      this.slots[slot] = state;
    }
  }
}
