/** A linear programme over whole numbers, written in LP format, with what proves its answer good enough. */
export interface IntegerProgramme {
  readonly text: string;
  /** The answer may miss the least objective by less than this. */
  readonly gap: number;
  /** Branching stops after so many nodes: a measure of effort that does not depend on the clock. */
  readonly nodes: number;
}

export type IntegerAnswer =
  | { readonly status: 'optimal' | 'stopped'; readonly countOf: (variable: string) => number }
  | { readonly status: 'infeasible' }
  /** Stopped before there was any answer. */
  | { readonly status: 'unknown' };

/** Solves integer programmes: what the search hands the last step of a large shared drawer to. */
export type IntegerSolver = (programme: IntegerProgramme) => IntegerAnswer;

/** What is used of the general-purpose solver HiGHS (npm `highs`). */
interface Highs {
  solve(
    text: string,
    options: Record<string, string | number | boolean>,
  ): { Status: string; Columns: Record<string, object> };
}

/** HiGHS as the integer solver. @param highs its loaded WebAssembly module */
export function integerSolverOf(highs: Highs): IntegerSolver {
  return ({ text, gap, nodes }) => {
    const solution = highs.solve(text, {
      mip_rel_gap: 0,
      mip_abs_gap: gap,
      mip_max_nodes: nodes,
      output_flag: false,
    });
    if (solution.Status === 'Infeasible') return { status: 'infeasible' };
    const columns = solution.Columns as Record<string, { Primal?: number }>;
    const isKnown = Object.values(columns).some(({ Primal }) => Primal !== undefined && Math.abs(Primal) > 0.5);
    if (!isKnown) return { status: 'unknown' };
    return {
      status: solution.Status === 'Optimal' ? 'optimal' : 'stopped',
      countOf: (variable) => Math.round(columns[variable]?.Primal ?? 0),
    };
  };
}
