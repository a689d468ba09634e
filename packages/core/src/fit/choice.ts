/** One way to serve a station: what it costs, what it takes from the shared resources, where it lies in its group. */
export interface Choice {
  /** Whole cost units. */
  readonly cost: number;
  /** Resources taken, by position; one that is taken twice stands twice. */
  readonly uses: readonly number[];
  /** Deviation from the aim, nm: what the spread of the group is measured on. */
  readonly deviation: number;
}

/** Choose one option a station at least cost, within the capacities and the spread of each group. */
export interface ChoiceProblem {
  /** Per station its options, cheapest first. */
  readonly options: readonly (readonly Choice[])[];
  /** Per resource how often it can be taken; Infinity where it never runs out. */
  readonly capacity: readonly number[];
  /** Per station the group whose spread it counts in. */
  readonly group: readonly number[];
  /** Per group the largest spread allowed, nm, or null. */
  readonly spread: readonly (number | null)[];
}

export type ChoiceAnswer =
  | {
      /** Whether the cost is proven to be the least. */
      readonly status: 'optimal' | 'feasible';
      readonly cost: number;
      /** No choice costs less than this; equal to the cost when that is proven. */
      readonly bound: number;
      /** Per station the position of its option. */
      readonly chosen: readonly number[];
    }
  | { readonly status: 'infeasible' };
