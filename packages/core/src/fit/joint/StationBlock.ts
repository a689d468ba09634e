import type { ChoiceProblem } from '../model/choice.js';
import { leastAssignment } from '../search/leastAssignment.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * Stations that are bound to each other by more than the shared halves: those of one engine that share its free housings
 * or a limited spread; or one station alone. For given prices of the halves it is solved exactly: cheapest option a
 * station, an assignment where housings are free, window by window where the spread is limited.
 */
export class StationBlock {
  readonly stations: readonly number[];
  /** Station `i` of the block has the cells `start[i]` to `start[i + 1] − 1`: its options, in flat arrays. */
  readonly start: Int32Array;
  /** Per cell its option in the whole problem. */
  readonly option: Int32Array;
  readonly cost: Float64Array;
  readonly deviation: Float64Array;
  /** Per cell its first and its second half by resource, −1 where that one cannot run out. */
  readonly first: Int32Array;
  readonly second: Int32Array;
  /** Per cell its housing as a column of the block, or −1 where housings need no matching here. */
  readonly column: Int32Array;
  readonly columns: number;
  readonly spread: number;
  /** The cells that the last solution chose, by station. */
  readonly pick: Int32Array;
  /** Where the windows of deviations start that could hold a solution. */
  private readonly windows: readonly number[];
  private readonly value: Float64Array;
  private readonly matrix: Float64Array;
  private readonly cellOf: Int32Array;

  /**
   * @param kept per station of the whole problem its options worth looking at
   * @param scarce 1 for every resource that can run out
   */
  constructor(problem: ChoiceProblem, stations: readonly number[], kept: readonly Int32Array[], scarce: Uint8Array) {
    this.stations = stations;
    const total = stations.reduce((sum, station) => sum + kept[station]!.length, 0);
    this.start = new Int32Array(stations.length + 1);
    this.option = new Int32Array(total);
    this.cost = new Float64Array(total);
    this.deviation = new Float64Array(total);
    this.first = new Int32Array(total);
    this.second = new Int32Array(total);
    this.column = new Int32Array(total).fill(-1);
    this.value = new Float64Array(total);
    this.pick = new Int32Array(stations.length);
    this.spread = stations.length > 1 ? problem.spread[problem.group[stations[0]!]!]! : INFINITY;
    const columns = new Map<number, number>();
    const columnOf = (resource: number) => {
      const column = columns.get(resource) ?? columns.size;
      columns.set(resource, column);
      return column;
    };
    const limited = (resource: number) => (resource >= 0 && scarce[resource] === 1 ? resource : -1);
    let cell = 0;
    let needsMatching = false;
    stations.forEach((station, at) => {
      for (const option of kept[station]!) {
        this.option[cell] = option;
        this.cost[cell] = problem.cost[option]!;
        this.deviation[cell] = problem.deviation[option]!;
        this.first[cell] = limited(problem.use[0][option]!);
        this.second[cell] = limited(problem.use[1][option]!);
        const housing = limited(problem.use[2][option]!);
        needsMatching ||= housing >= 0;
        // A housing that nobody else wants is a column of the station's own.
        this.column[cell] = columnOf(housing >= 0 ? housing : -1 - at);
        cell += 1;
      }
      this.start[at + 1] = cell;
    });
    this.columns = needsMatching ? columns.size : 0;
    if (!needsMatching) this.column.fill(-1);
    this.matrix = new Float64Array(stations.length * this.columns);
    this.cellOf = new Int32Array(stations.length * this.columns);
    this.windows = this.spread === INFINITY ? [] : [...new Set(this.deviation)].sort((a, b) => a - b);
  }

  /** The least cost at these prices, the picks with it; `room` forbids what is not left. Infinity when nothing fits. */
  least(prices: Float64Array, room: Float64Array | null = null): number {
    this.evaluate(prices, room);
    const total = this.solve(-INFINITY, INFINITY);
    if (this.spread === INFINITY || total === INFINITY || this.isEven()) return total;
    let best = INFINITY;
    const picks = new Int32Array(this.pick.length);
    for (const low of this.windows) {
      const found = this.solve(low, low + this.spread, best);
      if (found >= best) continue;
      best = found;
      picks.set(this.pick);
    }
    this.pick.set(picks);
    return best;
  }

  /**
   * Per cell a lower bound on the least cost at these prices with that cell taken; Infinity where it cannot be.
   *
   * @param out filled, by cell
   */
  leastWith(prices: Float64Array, out: Float64Array): void {
    this.evaluate(prices, null);
    out.fill(INFINITY);
    if (this.spread === INFINITY) this.boundCells(-INFINITY, INFINITY, out);
    else for (const low of this.windows) this.boundCells(low, low + this.spread, out);
  }

  private isEven(): boolean {
    let low = INFINITY;
    let high = -INFINITY;
    for (const cell of this.pick) {
      low = Math.min(low, this.deviation[cell]!);
      high = Math.max(high, this.deviation[cell]!);
    }
    return high - low <= this.spread;
  }

  private evaluate(prices: Float64Array, room: Float64Array | null): void {
    const { value, cost, first, second } = this;
    for (let cell = 0; cell < value.length; cell += 1) {
      const a = first[cell]!;
      const b = second[cell]!;
      let sum = cost[cell]!;
      if (a >= 0) sum += prices[a]!;
      if (b >= 0) sum += prices[b]!;
      if (room !== null && ((a >= 0 && room[a]! < (a === b ? 2 : 1)) || (b >= 0 && room[b]! < 1))) sum = INFINITY;
      value[cell] = sum;
    }
  }

  /** Cheapest cell a station among those whose deviation lies in the window; sets `pick`. */
  private solve(low: number, high: number, enough = INFINITY): number {
    const { value, deviation, start, pick } = this;
    const count = this.stations.length;
    let total = 0;
    for (let at = 0; at < count; at += 1) {
      let least = INFINITY;
      for (let cell = start[at]!; cell < start[at + 1]!; cell += 1) {
        if (value[cell]! >= least || deviation[cell]! < low || deviation[cell]! > high) continue;
        least = value[cell]!;
        pick[at] = cell;
      }
      total += least;
      if (total >= enough || least === INFINITY) return INFINITY;
    }
    if (this.columns === 0 || !this.clashes()) return total;
    const answer = this.assign(low, high);
    if (answer.total < INFINITY) {
      for (let at = 0; at < count; at += 1) pick[at] = this.cellOf[at * this.columns + answer.columns[at]!]!;
    }
    return answer.total;
  }

  /** True if two picks want the same housing. */
  private clashes(): boolean {
    const { pick, column } = this;
    for (let one = 1; one < pick.length; one += 1) {
      for (let other = 0; other < one; other += 1) if (column[pick[one]!] === column[pick[other]!]) return true;
    }
    return false;
  }

  private assign(low: number, high: number) {
    const { value, deviation, start, column, columns, matrix, cellOf } = this;
    matrix.fill(INFINITY);
    for (let at = 0; at < this.stations.length; at += 1) {
      for (let cell = start[at]!; cell < start[at + 1]!; cell += 1) {
        const place = at * columns + column[cell]!;
        if (value[cell]! >= matrix[place]! || deviation[cell]! < low || deviation[cell]! > high) continue;
        matrix[place] = value[cell]!;
        cellOf[place] = cell;
      }
    }
    return leastAssignment(matrix, this.stations.length, columns);
  }

  private boundCells(low: number, high: number, out: Float64Array): void {
    const { value, deviation, start, column, columns } = this;
    const count = this.stations.length;
    let total = 0;
    let rowDual = new Float64Array(count);
    let columnDual: Float64Array | null = null;
    if (columns > 0) {
      const answer = this.assign(low, high);
      total = answer.total;
      rowDual = answer.rowDual as typeof rowDual;
      columnDual = answer.columnDual;
    } else {
      total = this.solve(low, high);
      if (total < INFINITY) for (let at = 0; at < count; at += 1) rowDual[at] = value[this.pick[at]!]!;
    }
    if (total === INFINITY) return;
    for (let at = 0; at < count; at += 1) {
      for (let cell = start[at]!; cell < start[at + 1]!; cell += 1) {
        if (deviation[cell]! < low || deviation[cell]! > high) continue;
        const bound = total + value[cell]! - rowDual[at]! - (columnDual === null ? 0 : columnDual[column[cell]!]!);
        if (bound < out[cell]!) out[cell] = bound;
      }
    }
  }
}
