/**
 * Ways to serve the stations, one after the other in flat arrays: station `s` has the options `start[s]` to
 * `start[s + 1] − 1`. An option is named by its position.
 */
export interface Choices {
  readonly start: Int32Array;
  /** Whole cost units. */
  readonly cost: Float64Array;
  /** Deviation from the aim, nm: what the spread of the group is measured on. */
  readonly deviation: Float64Array;
  /**
   * What an option takes, by resource, −1 for nothing: two halves, which may be of one kind and then count twice, and a
   * housing. Halves are shared by all; a housing only serves the stations of one engine and family.
   */
  readonly use: readonly [Int32Array, Int32Array, Int32Array];
}

/** Choose one option a station at least cost, within the capacities and the spread of each group. */
export interface ChoiceProblem extends Choices {
  /** Per resource how often it can be taken; Infinity where it never runs out. */
  readonly capacity: Float64Array;
  /** Per station the group whose spread it counts in. */
  readonly group: Int32Array;
  /** Per group the largest spread allowed, nm; Infinity where it is free. */
  readonly spread: Float64Array;
}

export type ChoiceAnswer =
  | {
      /** True if the cost is proven to be the least. */
      readonly status: 'optimal' | 'feasible';
      readonly cost: number;
      /** No choice costs less than this; equal to the cost when that is proven. */
      readonly bound: number;
      /** Per station its option. */
      readonly chosen: Int32Array;
      /** Per resource what the bound would give back for one more of it, in cost units. */
      readonly prices: Float64Array;
    }
  | { readonly status: 'infeasible' }
  /** Ended with neither a choice nor a proof that there is none: no choice costs less than the bound. */
  | { readonly status: 'stopped'; readonly bound: number };

/** One option written out. */
export interface Choice {
  readonly cost: number;
  readonly deviation: number;
  /** See `Choices.use`. */
  readonly uses: readonly [number, number, number];
}

/** Puts options that were written out, station by station, into flat arrays. */
export function choicesOf(stations: readonly (readonly Choice[])[]): Choices {
  const all = stations.flat();
  const start = new Int32Array(stations.length + 1);
  stations.forEach((options, station) => {
    start[station + 1] = start[station]! + options.length;
  });
  return {
    start,
    cost: Float64Array.from(all, ({ cost }) => cost),
    deviation: Float64Array.from(all, ({ deviation }) => deviation),
    use: [
      Int32Array.from(all, ({ uses }) => uses[0]),
      Int32Array.from(all, ({ uses }) => uses[1]),
      Int32Array.from(all, ({ uses }) => uses[2]),
    ],
  };
}

/** The same problem for some of its stations only. */
export function restrictedTo(problem: ChoiceProblem, stations: readonly number[]): ChoiceProblem {
  const start = new Int32Array(stations.length + 1);
  stations.forEach((station, at) => {
    start[at + 1] = start[at]! + problem.start[station + 1]! - problem.start[station]!;
  });
  const taken = <T extends Float64Array | Int32Array>(from: T, to: T): T => {
    stations.forEach((station, at) => {
      to.set(from.subarray(problem.start[station]!, problem.start[station + 1]!), start[at]!);
    });
    return to;
  };
  const total = start[stations.length]!;
  return {
    ...problem,
    start,
    cost: taken(problem.cost, new Float64Array(total)),
    deviation: taken(problem.deviation, new Float64Array(total)),
    use: [
      taken(problem.use[0], new Int32Array(total)),
      taken(problem.use[1], new Int32Array(total)),
      taken(problem.use[2], new Int32Array(total)),
    ],
    group: Int32Array.from(stations, (station) => problem.group[station]!),
  };
}

/** The same problem with one station kept to one of its options. @param option by its position in the whole problem */
export function restrictedToOption(problem: ChoiceProblem, station: number, option: number): ChoiceProblem {
  const first = problem.start[station]!;
  const gone = problem.start[station + 1]! - first - 1;
  const without = <T extends Float64Array | Int32Array>(list: T): T => {
    const kept = list.slice(0, list.length - gone) as T;
    kept[first] = list[option]!;
    kept.set(list.subarray(problem.start[station + 1]!), first + 1);
    return kept;
  };
  return {
    ...problem,
    start: problem.start.map((at, which) => (which > station ? at - gone : at)),
    cost: without(problem.cost),
    deviation: without(problem.deviation),
    use: [without(problem.use[0]), without(problem.use[1]), without(problem.use[2])],
  };
}
