import type { LinearProgramme } from './WholeProgramme.js';

/** A linear programme over whole numbers, with what proves its answer good enough. */
export interface IntegerProgramme {
  readonly programme: LinearProgramme;
  /** The answer may miss the least objective by less than this. */
  readonly gap: number;
  /** Branching stops after so many nodes: a measure of effort that does not depend on the clock. */
  readonly nodes: number;
}

export type IntegerAnswer =
  | {
      readonly status: 'optimal' | 'stopped';
      /** No answer costs less than this. */
      readonly bound: number;
      /** Per column its whole number. */
      readonly counts: Int32Array;
    }
  | { readonly status: 'infeasible' }
  /** Stopped before there was any answer; `bound` is proven all the same. */
  | { readonly status: 'unknown'; readonly bound: number };
